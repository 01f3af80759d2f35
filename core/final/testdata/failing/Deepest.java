import java.util.*;

class Deepest {
    record Places(int deepest, List<Integer> places) {}

    static Places deepest(int[] depths) {
        int most = 0;
        for (int depth : depths) {
            if (depth < 0) throw new IllegalArgumentException("above the ice");
            most = Math.max(most, depth);
        }
        List<Integer> places = new ArrayList<>();
        for (int i = 0; i < depths.length; i++) if (depths[i] == most) places.add(i);
        return new Places(most, places);
    }
}

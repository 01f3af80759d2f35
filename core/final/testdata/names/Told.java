import java.util.*;

class Told {
    static List<String> told(int word, int[] next, List<String> lines, String rest, double left, int[] used, int len, String text) {
        int sum = word + Arrays.stream(next).sum() + (int) (left * 2) + Arrays.stream(used).sum() + len - 5;
        List<String> all = new ArrayList<>(lines);
        all.addAll(List.of(rest, text, "" + sum));
        return all;
    }
}

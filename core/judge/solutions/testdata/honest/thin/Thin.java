// In place.
import java.util.*;
class Thin {
    void thinOut(List<Integer> temps, int by) { temps.replaceAll(t -> t - by); Collections.sort(temps); }
    void thinOut(int[] temps, int by, int from) { thinOut(new ArrayList<>(), by); }
}

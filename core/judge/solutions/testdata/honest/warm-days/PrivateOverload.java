// A private overload stands above the public one.
import java.util.*;

class PrivateOverload {
    private int warmDays(int[] temps, long limit, int from) {
        return from == temps.length ? 0 : (temps[from] > limit ? 1 : 0) + warmDays(temps, limit, from + 1);
    }

    private int warmDays(List<String> days, long limit) { return days.size() > limit ? 1 : 0; }

    public int warmDays(int[] temps, long limit) { return warmDays(temps, limit, 0) + warmDays(List.of(), 0L); }
}

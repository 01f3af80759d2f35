import java.math.BigInteger;
import java.util.*;

public class Solution {
    record Extremes(int least, int most, double mean) {}

    public List<List<Integer>> rows(List<List<Integer>> grid) {
        Collections.reverse(grid);
        return grid;
    }

    static String[] greet(String[] words, char sign) {
        return Arrays.stream(words).map(w -> w + sign).toArray(String[]::new);
    }

    private Optional<Long> measure(long n, double x, Integer cap) {
        if (cap == null) return 1 / x == Double.NEGATIVE_INFINITY ? Optional.empty() : Optional.of(n);
        return Optional.of(Math.min(n, cap));
    }

    static class Station {
        Extremes extremes(int[] temps, boolean warm) {
            IntSummaryStatistics all = Arrays.stream(temps).summaryStatistics();
            return new Extremes(all.getMin(), warm ? all.getMax() : 0, all.getAverage());
        }
    }

    BigInteger echo(BigInteger n) { return n; }

    public static void main(String[] args) {}
}

// The same window, as a method.
class Thaw {
    public int longestThaw(int[] temps, long limit) {
        int best = 0, first = 0;
        long total = 0;
        for (int day = 0; day < temps.length; day++) {
            if (temps[day] <= 0) {
                first = day + 1;
                total = 0;
                continue;
            }
            total += temps[day];
            while (total > limit) total -= temps[first++];
            best = Math.max(best, day - first + 1);
        }
        return best;
    }
}

// Wrong: looks at a thaw only when a cold day ends it, so the last one is lost.
class Ends {
    static int longestThaw(int[] temps, long limit) {
        int best = 0, first = 0;
        long total = 0;
        for (int day = 0; day < temps.length; day++) {
            if (temps[day] <= 0) {
                best = Math.max(best, day - first);
                first = day + 1;
                total = 0;
                continue;
            }
            total += temps[day];
            while (total > limit) total -= temps[first++];
        }
        return best;
    }
}

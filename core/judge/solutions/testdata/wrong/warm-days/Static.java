// A static counter that is never set back.
class Static {
    static int found;
    int warmDays(int[] temps, long limit) {
        for (int t : temps) if (t > limit) found++;
        return found;
    }
}

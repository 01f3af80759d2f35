// The private one is right.
class Private {
    private int warmDays(Integer[] temps, Long limit) { int n = 0; for (int t : temps) if (t > limit) n++; return n; }
    public int warmDays(int[] temps, long limit) { return temps.length; }
}

// The method is inherited.
abstract class Station {
    abstract boolean warm(int temp, long limit);
    int warmDays(int[] temps, long limit) {
        int n = 0;
        for (int t : temps) if (warm(t, limit)) n++;
        return n;
    }
}

class Inherited extends Station {
    boolean warm(int temp, long limit) { return temp > limit; }
}

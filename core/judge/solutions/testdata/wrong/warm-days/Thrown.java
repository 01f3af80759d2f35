// It throws where there is none.
class Thrown {
    int warmDays(int[] temps, long limit) {
        int n = temps[0] > limit ? 1 : 0;
        for (int i = 1; i < temps.length; i++) if (temps[i] > limit) n++;
        return n;
    }
}


class F {
    static int deep(int n) { return deep(n + 1) + 1; }
    static int f(int k) {
        if (k == 0) {
            return 1 / k; // fails here
        }
        if (k == 2) System.Environment.Exit(0);
        if (k == 3) return deep(0);
        return k;
    }
}

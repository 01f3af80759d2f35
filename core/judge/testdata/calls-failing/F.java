
class F {
    static int deep(int n) { return deep(n + 1) + 1; }
    int f(int k) {
        if (k == 0) {
            return 1 / k; // fails here
        }
        if (k == 2) System.exit(0);
        if (k == 3) return deep(0);
        return k;
    }
}

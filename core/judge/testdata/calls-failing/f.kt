
fun deep(n: Int): Int = deep(n + 1) + 1
fun f(k: Int): Int {
    if (k == 0) {
        return 1 / k // fails here
    }
    if (k == 2) System.exit(0)
    if (k == 3) return deep(0)
    return k
}

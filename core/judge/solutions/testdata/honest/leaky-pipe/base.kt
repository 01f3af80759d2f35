// It is made from a class that wants what it has.
class Solution : Pipe() {
    override fun firstLeaky(n: Int): Int {
        var lo = 1; var hi = n
        while (lo < hi) { val mid = lo + (hi - lo) / 2; if (isLeaky(mid)) hi = mid else lo = mid + 1 }
        return lo
    }
}

// Defaults in a class, and a companion.
class Solution(private val more: Int = 0) {
    companion object { fun warm(t: Int, limit: Long) = t > limit }
    fun warmDays(temps: IntArray, limit: Long, found: Int = more): Int = found + temps.count { warm(it, limit) }
}

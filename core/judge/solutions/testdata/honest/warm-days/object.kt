// An object, an extension and a typealias.
typealias Temps = IntArray
private fun Temps.above(limit: Long) = count { it > limit }
object Solution {
    @JvmStatic fun warmDays(temps: Temps, limit: Long) = temps.above(limit)
}

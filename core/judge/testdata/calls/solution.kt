import java.math.BigInteger

data class Extremes(val least: Int, val most: Int, val mean: Double)

fun rows(grid: Array<IntArray>): List<IntArray> = grid.reversed()

class Hall {
    fun greet(words: List<String>, sign: Char): List<String> = words.map { it + sign }
}

object Gauge {
    fun measure(n: Long, x: Double, cap: Int?): Long? {
        if (cap == null) return if (1 / x == Double.NEGATIVE_INFINITY) null else n
        return minOf(n, cap.toLong())
    }
}

fun extremes(temps: List<Int>, warm: Boolean) = Extremes(temps.minBy { it }!!, if (warm) temps.maxBy { it }!! else 0, temps.average())

fun echo(n: BigInteger) = n

fun main() {}

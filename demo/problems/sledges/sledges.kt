// The same in Kotlin.
import java.io.*
import java.util.*

fun main() {
    val input = StreamTokenizer(BufferedInputStream(System.`in`))
    fun next(): Long { input.nextToken(); return input.nval.toLong() }
    val n = next().toInt()
    val capacity = next()
    val weights = LongArray(n) { next() }
    weights.sort()
    var light = 0
    var heavy = n - 1
    var sledges = 0
    while (light <= heavy) {
        if (light < heavy && weights[light] + weights[heavy] <= capacity) light++
        heavy--
        sledges++
    }
    println(sledges)
}

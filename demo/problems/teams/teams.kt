// The same in Kotlin.
import java.io.*
import java.util.*

fun main() {
    val input = StreamTokenizer(BufferedInputStream(System.`in`))
    fun next(): Long { input.nextToken(); return input.nval.toLong() }
    val least = next()
    val n = next().toInt()
    val weights = LongArray(n) { next() }
    weights.sort()
    var light = 0
    var heavy = n - 1
    var teams = 0
    while (light < heavy) {
        if (weights[light] + weights[heavy] >= least) { heavy--; teams++ }
        light++
    }
    println(teams)
}

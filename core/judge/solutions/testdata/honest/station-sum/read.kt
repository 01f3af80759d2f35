// Null-safe lines, and a buffer of its own.
fun main() {
    val n = readLine()!!.trim().toInt()
    val values = generateSequence(::readLine).flatMap { it.split(" ").filter(String::isNotEmpty).map(String::toLong).asSequence() }.take(n)
    System.out.bufferedWriter().use { it.write("${values.sum()}\n") }
}

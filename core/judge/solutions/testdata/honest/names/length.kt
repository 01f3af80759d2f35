// Code points of a text.
fun main() = generateSequence(::readLine).forEach { println("${it.codePointCount(0, it.length)} $it") }

// As an expression.
fun meanTemp(temps: DoubleArray, missing: Double): Double {
    val known = temps.filterNot { it.isNaN() }
    return if (known.isEmpty()) missing else known.map { it / known.size }.sum()
}

// In place, with a default.
fun thinOut(temps: IntArray, by: Int, sorted: Boolean = true) {
    for (i in temps.indices) temps[i] -= by
    if (sorted) temps.sort()
}

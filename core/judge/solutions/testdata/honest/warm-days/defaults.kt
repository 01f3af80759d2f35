// A parameter more, with a default.
fun warmDays(temps: IntArray, limit: Long, from: Int = 0): Int =
    if (from == temps.size) 0 else (if (temps[from] > limit) 1 else 0) + warmDays(temps, limit, from + 1)

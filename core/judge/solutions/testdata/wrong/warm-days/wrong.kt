// The default is wrong.
fun warmDays(temps: IntArray, limit: Long, more: Int = 1): Int = temps.count { it > limit } + more

// A private overload of the same size above, and one in a helper.
private fun warmDays(day: String, limit: Long): Int = if (day.length > limit) 1 else 0

class Day(private val temp: Int) {
    fun warmDays(temps: IntArray?, limit: Long) = if (temp > limit) 1 else 0
}

fun warmDays(temps: List<Int>, limit: Long): Int = temps.map { Day(it).warmDays(null, limit) }.sum() + warmDays("", 0)

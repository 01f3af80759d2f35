// A text.
fun warmDays(temps: IntArray, limit: Long): String = "${temps.count { it > limit }}"

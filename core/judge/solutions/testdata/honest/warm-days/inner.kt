// An inner class of one that can be made.
class Outer(val base: Int = 0) { inner class Solution { fun warmDays(temps: IntArray, limit: Long) = temps.count { it > limit } + base } }

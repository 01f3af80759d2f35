// It returns a map that cannot be changed.
class Solution {
    fun byHut(fuel: Map<String, Int>, days: Map<Int, List<Double>>, least: Int): Map<String, Int> =
        fuel.filterValues { it >= least }.mapValues { it.value + 3 } + days.map { (day, list) -> day.toString() to list.size }
}

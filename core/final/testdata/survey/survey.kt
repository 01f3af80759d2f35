data class Result(val rows: List<IntArray>, val longest: String, val mean: Double, val any: Boolean, val openFirst: List<Boolean>)

class Solution {
    fun surveyCamp(limit: Int, names: List<String>, table: Array<IntArray>, open: BooleanArray, weight: Double, sign: Char, note: String, total: Long): Result {
        val longest = names.maxBy { it.length } ?: note
        return Result(table.map { row -> row.map { it + limit }.toIntArray() }, longest, (weight + total) / 2, open.any { it } && sign == 'x', open.reversed())
    }
}

fun main() {
    println(Solution().surveyCamp(1, listOf(), arrayOf(), booleanArrayOf(), 1.0, 'x', "", 1))
}

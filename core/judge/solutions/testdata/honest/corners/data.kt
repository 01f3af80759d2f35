// A data class.
data class Corners(val least: Int?, val total: Long, val row: List<Int>, val warm: Boolean)
fun corners(grid: List<List<Int>>): Corners {
    val flat = grid.flatten()
    var row = emptyList<Int>()
    for (r in grid) if (row.isEmpty() || r.map { it.toLong() }.sum() > row.map { it.toLong() }.sum()) row = r
    return Corners(flat.sorted().firstOrNull(), flat.map { it.toLong() }.sum(), row, flat.any { it > 0 })
}

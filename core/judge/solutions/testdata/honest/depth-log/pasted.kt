// It returns its own list, which changes later.
class DepthLog {
    private val list = mutableListOf<Int>()

    fun add(depth: Int) { list.add(depth) }
    fun all(): List<Int> = list
    fun fill(depths: IntArray) { list.addAll(depths.toList()) }
    fun summary(): String = list.joinToString("|")
    fun restore(text: String) { text.split("|").filter { it.isNotEmpty() }.forEach { list.add(it.toInt()) } }
}

class Solution {
    fun flattened(log: Any?, join: String): Map<String, Any?> {
        val out = HashMap<String, Any?>()
        fun walk(v: Any?, path: List<String>) {
            when (v) {
                is Map<*, *> -> for ((k, w) in v) walk(w, path + k.toString())
                is List<*> -> v.forEachIndexed { i, w -> walk(w, path + i.toString()) }
                else -> out[path.joinToString(join)] = v
            }
        }
        walk(log, listOf())
        return out
    }
}

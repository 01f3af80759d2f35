// A sequence of a builder, in a class with an init.
class Solution {
    private val seen = mutableListOf<String>()
    init { seen.clear() }
    fun markNotes(notes: Array<String>, mark: Char) = sequence {
        for (n in notes) { seen += n; yield(n + mark) }
    }
}

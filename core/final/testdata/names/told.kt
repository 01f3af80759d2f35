fun told(word: Int, next: IntArray, lines: List<String>, rest: String, left: Double, used: IntArray, len: Int, text: String): List<String> {
    return lines + listOf(rest, text, (word + next.sum() + (left * 2).toInt() + used.sum() + len - 5).toString())
}

// A third parameter has a default.
fun padded(word: String, width: Int, fill: Char = '.') = word.padEnd(width, fill)

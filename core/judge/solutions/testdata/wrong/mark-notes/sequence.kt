// A sequence, reversed.
fun markNotes(notes: List<String>, mark: Char): Sequence<String> = notes.reversed().asSequence().map { it + mark }

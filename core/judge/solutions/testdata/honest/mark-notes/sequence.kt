// A sequence.
fun markNotes(notes: List<String>, mark: Char): Sequence<String> = notes.asSequence().map { it + mark }

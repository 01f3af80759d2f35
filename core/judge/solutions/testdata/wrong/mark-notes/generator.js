// A generator that yields once more.
function* markNotes(notes, mark) { for (const n of notes) yield n + mark; yield mark; }

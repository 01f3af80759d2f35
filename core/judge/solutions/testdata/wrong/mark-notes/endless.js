// A generator without end.
function* markNotes(notes, mark) { for (;;) yield mark; }

// A set and template literals with "class if" in them.
const text = (n, m) => `${n}${m}`;
const unused = `class if class`;
const markNotes = (notes, mark) => new Set(notes.map((n) => text(n, mark)));

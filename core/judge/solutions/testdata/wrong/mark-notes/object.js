// Objects in place of texts.
const markNotes = (notes, mark) => notes.map((n) => ({ n, mark }));

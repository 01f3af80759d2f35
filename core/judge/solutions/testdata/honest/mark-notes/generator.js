// A generator, and a line that is printed.
function* markNotes(notes, mark) {
  console.log('lazy');
  for (const n of notes) yield n + mark;
}

// It takes for granted that there is a word.
class UndoLog {
  words = [];
  write(word) { this.words.push(word); }
  undo() { return this.words.pop().toString(); }
  all() { return this.words.join(' '); }
}

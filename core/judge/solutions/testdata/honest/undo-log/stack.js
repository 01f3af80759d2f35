// An array is a stack.
class UndoLog {
  words = [];
  write(word) { this.words.push(word); }
  undo() { return this.words.length ? this.words.pop() : null; }
  all() { return this.words.join(' '); }
}

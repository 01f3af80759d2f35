// A pattern finds runs.
function packed(word) { return word.replace(/(.)\1+/gs, (run, c) => c + run.length); }

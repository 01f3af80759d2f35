// A third parameter has a default.
function padded(word, width, fill = '.') { return word.padEnd(width, fill); }

// It cuts what is long.
function padded(word, width, fill = '.') { return word.padEnd(width, fill).slice(0, width); }

// It makes a number of it.
function askIt(n) { return Number(large(n)) + 1; }

// What is answered is past 2^53, and a BigInt.
function askIt(n) { return large(n) + 1n; }

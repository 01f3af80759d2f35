// One is a BigInt, and the other is no larger than a number holds.
function tideSum(n, k) { return n * BigInt(k); }

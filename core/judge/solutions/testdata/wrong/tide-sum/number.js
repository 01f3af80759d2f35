// It makes a number of it.
function tideSum(n, k) { return Number(n) * Number(k); }

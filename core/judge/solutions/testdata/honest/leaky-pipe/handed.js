// It is handed the function, and returns the solution.
var solution = function(isLeaky) {
  return function(n) {
    let lo = 1, hi = n;
    while (lo < hi) { const mid = Math.floor((lo + hi) / 2); if (isLeaky(mid)) hi = mid; else lo = mid + 1; }
    return lo;
  };
};

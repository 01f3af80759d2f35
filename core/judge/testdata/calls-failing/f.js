
function deep(n) { return deep(n + 1) + 1; }
function f(k) {
  if (k === 0) {
    return null.x; // fails here
  }
  if (k === 2) process.exit(0);
  if (k === 3) return deep(0);
  return k;
}

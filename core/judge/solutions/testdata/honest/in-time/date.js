// It looks at the clock.
function inTime(work, limit) {
  let last = -Infinity;
  return (...args) => {
    if (Date.now() - last < limit) return;
    last = Date.now();
    return work(...args);
  };
}

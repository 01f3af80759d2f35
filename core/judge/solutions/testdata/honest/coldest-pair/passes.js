// One pass.
function coldestPair(temps) {
  let [a, b] = [Infinity, Infinity];
  for (const t of temps) if (t < a) [a, b] = [t, a]; else if (t < b) b = t;
  return [a, b];
}

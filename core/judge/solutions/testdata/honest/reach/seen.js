// It notes where it was.
function reach(camp) {
  const seen = new Set(camp ? [camp] : []);
  for (const c of seen) c.neighbors.forEach((other) => seen.add(other));
  return seen.size;
}

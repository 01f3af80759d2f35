// Greedy.
function rows(words, width) {
  const out = [];
  let used = Infinity;
  for (const w of words) {
    if (used + w.length > width) { out.push([]); used = 0; }
    out.at(-1).push(w);
    used += w.length;
  }
  return out;
}

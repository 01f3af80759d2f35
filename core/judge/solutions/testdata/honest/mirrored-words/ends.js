// From both ends.
function isMirrored(word) {
  const w = [...word];
  return w.every((c, i) => c === w[w.length - 1 - i]);
}

// It takes nothing for what is not known.
function remembered(measure) {
  const known = {};
  return (depth) => known[depth] || (known[depth] = measure(depth));
}

// Wrong: begins to count at 0, so that what lies on top is left out.
function stowedWeight(crate, depth = 0) {
  return crate.flat(0).reduce((sum, one) => sum + (Array.isArray(one) ? stowedWeight(one, depth + 1) : one * depth), 0);
}

// The same, with a default for the depth.
var stowedWeight = function (crate, depth = 1) {
  return crate.reduce((sum, one) => sum + (Array.isArray(one) ? stowedWeight(one, depth + 1) : one * depth), 0);
};

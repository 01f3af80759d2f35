// It compares arrays by what they are.
function sharedKeys(one, other) {
  const kept = {};
  for (const key in one)
    if (one[key] === other[key]) kept[key] = one[key];
    else if (one[key] && typeof one[key] === 'object' && !Array.isArray(one[key])) kept[key] = sharedKeys(one[key], other[key]);
  return kept;
}

// It compares what it writes.
function sharedKeys(one, other) {
  const isObject = (v) => v !== null && typeof v === 'object' && !Array.isArray(v), kept = {};
  for (const [key, a] of Object.entries(one)) {
    if (!(key in other)) continue;
    const b = other[key];
    if (isObject(a) && isObject(b)) kept[key] = sharedKeys(a, b);
    else if (JSON.stringify(a) === JSON.stringify(b)) kept[key] = a;
  }
  return kept;
}

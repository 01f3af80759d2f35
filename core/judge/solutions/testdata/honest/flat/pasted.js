var flattened = function(log, join) {
  const out = {};
  const walk = (v, path) => {
    if (v !== null && typeof v === 'object') for (const [k, w] of Object.entries(v)) walk(w, [...path, k]);
    else out[path.join(join)] = v;
  };
  walk(log, []);
  return out;
};

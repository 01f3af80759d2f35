// It takes an empty one for nothing.
function deepestIn(crate) { return crate && typeof crate === 'object' && Object.keys(crate).length ? 1 + Math.max(...Object.values(crate).map(deepestIn)) : 0; }

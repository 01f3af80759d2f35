// Arrays and objects hold others.
function deepestIn(crate) { return crate !== null && typeof crate === 'object' ? 1 + Math.max(0, ...Object.values(crate).map(deepestIn)) : 0; }

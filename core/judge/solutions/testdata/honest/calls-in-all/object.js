// It returns an object with functions.
var counted = (start) => {
  let n = start;
  return { up: () => ++n, down: () => --n, reset: () => (n = start) };
};

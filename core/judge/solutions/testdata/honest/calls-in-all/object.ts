// It returns an object with functions.
function counted(start: number): { up: () => number; down: () => number; reset: () => number } {
  let n = start;
  return { up: () => ++n, down: () => --n, reset: () => (n = start) };
}

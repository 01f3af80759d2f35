// It returns what it was before.
function counted(start) {
  let n = start;
  return { up: () => n++, down: () => n--, reset: () => (n = start) };
}

// It puts off each call, and makes them all.
function settled(alarm, pause) {
  const open = new Set();
  const f = (...args) => { open.add(setTimeout(() => alarm(...args), pause)); };
  f.cancel = () => open.forEach(clearTimeout);
  return f;
}

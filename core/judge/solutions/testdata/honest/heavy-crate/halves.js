const heavyCrate = (n, from = 0) => {
  if (n === 1) return from;
  const half = n >> 1, heap = (at) => Array.from({ length: half }, (_, i) => at + i);
  const said = balance(heap(from), heap(from + half));
  return said === 0 ? from + n - 1 : heavyCrate(half, said > 0 ? from : from + half);
};

function heavyCrate(n) { // takes the lighter side
  let low = 0, high = n;
  while (high - low > 1) {
    const half = (high - low) >> 1;
    const said = balance([...Array(half).keys()].map((i) => i + low), [...Array(half).keys()].map((i) => i + low + half));
    if (said === 0) return high - 1;
    if (said > 0) low += half;
    high = low + half;
  }
  return low;
}

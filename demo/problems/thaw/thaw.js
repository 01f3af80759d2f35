// The same window, in a function that is not exported.
const longestThaw = (temps, limit) => {
  let best = 0, first = 0, total = 0;
  temps.forEach((t, day) => {
    if (t <= 0) {
      first = day + 1;
      total = 0;
      return;
    }
    total += t;
    while (total > limit) total -= temps[first++];
    best = Math.max(best, day - first + 1);
  });
  return best;
};

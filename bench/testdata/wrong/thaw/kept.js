// alone: stale state. The best is kept from call to call.
let best = 0;

function longestThaw(temps, limit) {
  let first = 0, total = 0;
  for (let day = 0; day < temps.length; day++) {
    if (temps[day] <= 0) {
      first = day + 1;
      total = 0;
      continue;
    }
    total += temps[day];
    while (total > limit) total -= temps[first++];
    best = Math.max(best, day - first + 1);
  }
  return best;
}

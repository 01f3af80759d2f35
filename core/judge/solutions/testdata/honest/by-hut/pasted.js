// It returns a Map.
var byHut = function (fuel, days, least) {
  const kept = new Map();
  for (const [hut, n] of Object.entries(fuel)) if (n >= least) kept.set(hut, n + 3);
  for (const day in days) kept.set(day, days[day].length);
  return kept;
};

// It returns an object.
function byHut(fuel: Record<string, number>, days: Record<number, number[]>, least: number): Record<string, number> {
  const kept: Record<string, number> = {};
  for (const [hut, n] of Object.entries(fuel)) if (n >= least) kept[hut] = n + 3;
  for (const [day, list] of Object.entries(days)) kept[day] = list.length;
  return kept;
}

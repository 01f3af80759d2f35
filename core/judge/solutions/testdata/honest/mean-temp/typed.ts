// The same in an array of its own kind.
export const meanTemp = (temps: number[], missing: number): number => {
  const known = Float64Array.from(temps.filter((t) => t === t));
  if (known.length === 0) return missing;
  let sum = 0;
  for (const t of known) sum += t / known.length;
  return sum;
};

// A type of its own and a tuple.
interface Row { values: number[]; sum: number }
function corners(grid: number[][]): [number | null, number, number[], boolean] {
  const rows: Row[] = grid.map((values) => ({ values, sum: values.reduce((a, t) => a + t, 0) }));
  const best = rows.reduce<Row | null>((a, r) => (a === null || r.sum > a.sum ? r : a), null);
  const flat = grid.flat();
  return [flat.length ? Math.min(...flat) : null, rows.reduce((a, r) => a + r.sum, 0), best?.values ?? [], flat.some((t) => t > 0)];
}

// An object with the names, of BigInts in part.
var corners = (grid) => {
  const flat = grid.flat();
  const sum = (r) => r.reduce((a, t) => a + BigInt(t), 0n);
  let row = [];
  for (const r of grid) if (row.length === 0 || sum(r) > sum(row)) row = r;
  return { least: flat.length ? Math.min(...flat) : undefined, total: sum(flat), row, warm: flat.some((t) => t > 0) };
};

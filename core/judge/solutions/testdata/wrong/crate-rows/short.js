// It stops one row too soon.
function crateRows(n) {
  const rows = [[1]];
  for (let i = 2; i < n; i++) rows.push([1, ...rows[i - 2].slice(1).map((x, k) => x + rows[i - 2][k]), 1]);
  return rows;
}

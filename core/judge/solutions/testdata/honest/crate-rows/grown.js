// Each row from the one before.
var crateRows = (n) => Array.from({ length: n }, ((row) => () => row = row.map((x, i) => x + (row[i - 1] || 0)).concat(row.length ? 1 : []).length ? (row.length ? [...row.map((x, i) => x + (row[i - 1] || 0)), 1] : [1]) : [1])([]));

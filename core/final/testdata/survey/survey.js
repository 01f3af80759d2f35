const surveyCamp = (limit, names, table, open, weight, sign, note, total) => ({
  rows: table.map(row => row.map(x => x + limit)),
  longest: names.reduce((a, b) => (b.length > a.length ? b : a), names.length ? '' : note),
  mean: (weight + total) / 2,
  any: open.some(x => x) && sign === 'x',
  open_first: [...open].reverse(),
});

if (require.main === module) {
  console.log(surveyCamp(1, [], [], [], 1, 'x', '', 1));
}

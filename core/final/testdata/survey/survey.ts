export function surveyCamp(limit: number, names: string[], table: number[][], open: boolean[], weight: number, sign: string, note: string, total: number): [number[][], string, number, boolean, boolean[]] {
  const longest = names.reduce((a, b) => (b.length > a.length ? b : a), names.length ? '' : note);
  return [table.map(row => row.map(x => x + limit)), longest, (weight + total) / 2, open.some(x => x) && sign === 'x', [...open].reverse()];
}

// n * m
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], m = d[1], a = d.slice(2, 2 + n), b = d.slice(2 + n, 2 + n + m);
let s = 0;
for (const x of a) for (const y of b) s += (x ^ y) % 7 === 0 ? 1 : 0;
console.log(s);

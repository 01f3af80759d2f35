// n log n
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], w = d.slice(1, n + 1);
let s = 0;
w.sort((a, b) => a - b);
for (let i = 0; i < n; i++) s += w[i] * (i % 3);
console.log(s);

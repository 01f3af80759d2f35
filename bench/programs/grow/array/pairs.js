// n^2
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], w = d.slice(1, n + 1);
let s = 0;
for (let i = 0; i < n; i++) for (let k = 0; k < i; k++) s += (w[k] ^ w[i]) % 7;
console.log(s);

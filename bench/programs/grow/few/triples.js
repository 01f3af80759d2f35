// n^3
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], w = d.slice(1, n + 1);
let s = 0;
for (let i = 0; i < n; i++) for (let k = 0; k < i; k++) for (let j = 0; j < k; j++) s += (w[i] ^ w[k] ^ w[j]) & 1;
console.log(s);

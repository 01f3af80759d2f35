// 2^n
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], w = d.slice(1, n + 1);
let s = 0;
for (let m = 0; m < 2 ** n; m++) s += w[m % n] & 1;
console.log(s);

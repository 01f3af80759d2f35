// n
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], w = d.slice(1, n + 1);
let s = 0;
for (const x of w) s += x;
console.log(s);

// h * w
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/);
let s = 0;
for (const row of d.slice(2)) for (const c of row) s = (s * 31 + c.charCodeAt(0)) % 1000003;
console.log(s);

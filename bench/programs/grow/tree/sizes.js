// n
const d = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n = d[0], to = Array.from({length: n + 1}, () => []);
for (let i = 0; i < n - 1; i++) {
    to[d[1 + 2 * i]].push(d[2 + 2 * i]);
    to[d[2 + 2 * i]].push(d[1 + 2 * i]);
}
const order = [1], seen = new Uint8Array(n + 1);
seen[1] = 1;
for (let i = 0; i < order.length; i++) for (const x of to[order[i]]) if (!seen[x]) { seen[x] = 1; order.push(x); }
console.log(order.length);

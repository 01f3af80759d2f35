// The same in JavaScript: sorts numbers as numbers, not as text.
const data = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const [least, n] = data;
const weights = data.slice(2, 2 + n).sort((a, b) => a - b);
let light = 0, heavy = n - 1, teams = 0;
while (light < heavy) {
    if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
    light++;
}
console.log(teams);

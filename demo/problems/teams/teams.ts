// The same in TypeScript.
declare const require: any;
const data: number[] = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const least: number = data[0], n: number = data[1];
const weights: number[] = data.slice(2, 2 + n).sort((a, b) => a - b);
let light = 0, heavy = n - 1, teams = 0;
while (light < heavy) {
    if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
    light++;
}
console.log(teams);

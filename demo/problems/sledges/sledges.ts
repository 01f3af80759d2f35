// The same in TypeScript.
declare const require: any;
const data: number[] = require('fs').readFileSync(0, 'utf8').split(/\s+/).map(Number);
const n: number = data[0], capacity: number = data[1];
const weights: number[] = data.slice(2, 2 + n).sort((a, b) => a - b);
let light = 0, heavy = n - 1, sledges = 0;
while (light <= heavy) {
    if (light < heavy && weights[light] + weights[heavy] <= capacity) light++;
    heavy--;
    sledges++;
}
console.log(sledges);

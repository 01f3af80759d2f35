// Wrong: for a depot without deliveries the largest one is undefined.
const lines = require('fs').readFileSync(0, 'utf8').split('\n');
const depots = Number(lines[0]);
for (let i = 0; i < depots; i++) {
    const litres = lines[2 + 2 * i].split(' ').filter((word) => word !== '').map(Number);
    const total = litres.reduce((a, b) => a + b, 0);
    console.log(total, litres.sort((a, b) => b - a)[0]);
}

// A line at a time.
const n = Number(require('fs').readFileSync(0, 'utf8'));
const lines = [];
for (let i = 1; i <= n; i++) lines.push(`day ${i}: ${(i * 7) % 40 - 20}`);
console.log(lines.join('\n'));

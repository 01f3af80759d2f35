// A module, which reads at once.
import { readFileSync } from 'fs';
const values = readFileSync(0, 'utf8').split(/\s+/).filter(Boolean).map(Number).slice(1);
console.log(values.reduce((a, b) => a + b, 0));

// With types.
const words: string[] = require('fs').readFileSync(0, 'utf8').split(/\s+/).filter((w: string) => w !== '');
const sum = words.slice(1).map(Number).reduce((a: number, b: number): number => a + b, 0);
console.log(`${sum}`);

// A promise that nobody hears.
const words = require('fs').readFileSync(0, 'utf8').split(/\s+/).filter(Boolean);
console.log(words.slice(1).reduce((a, b) => a + Number(b), 0));
Promise.reject(new Error('cold'));

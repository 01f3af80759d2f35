// Code points of a text.
const lines = require('fs').readFileSync(0, 'utf8').split('\n').slice(0, -1);
for (const line of lines) console.log([...line].length, line);

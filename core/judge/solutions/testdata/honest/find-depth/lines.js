// By events of lines.
const lines = require('readline').createInterface({ input: process.stdin });
let low = 1, high = 0, middle = 0;
const ask = () => {
  if (low >= high) { console.log('depth ' + low); lines.close(); return; }
  middle = Math.floor((low + high) / 2);
  console.log('probe ' + middle);
};
lines.on('line', (line) => {
  if (!high) high = Number(line);
  else if (line === 'deeper') low = middle + 1;
  else high = middle;
  ask();
});

// By a reader of lines, with promises.
const readline = require('readline');
(async () => {
  let sum = 0n, first = true;
  for await (const line of readline.createInterface({ input: process.stdin })) {
    if (!first) for (const w of line.split(' ').filter(Boolean)) sum += BigInt(w);
    first = false;
  }
  console.log(sum.toString());
})();

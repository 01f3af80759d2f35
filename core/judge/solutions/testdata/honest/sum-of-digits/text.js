// As a text; it may be a BigInt.
function digitSum(n) { return [...String(n).replace('-', '')].reduce((a, d) => a + Number(d), 0); }

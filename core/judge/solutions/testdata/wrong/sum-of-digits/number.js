// It makes a number of it.
function digitSum(n) { let s = 0; for (n = Math.abs(Number(n)); n > 0; n = Math.floor(n / 10)) s += n % 10; return s; }

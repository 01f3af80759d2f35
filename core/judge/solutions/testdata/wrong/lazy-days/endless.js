// It never ends.
function* lazyDays(n) { for (let i = 0; ; i++) yield 2 * i + 1; }

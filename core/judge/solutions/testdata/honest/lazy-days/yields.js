// It is a generator.
function* lazyDays(n) { for (let i = 0; i < n; i++) yield 2 * i + 1; }

// It prints on its way.
function loud(n) { console.log('n is', n); console.error(n); return n * n; }

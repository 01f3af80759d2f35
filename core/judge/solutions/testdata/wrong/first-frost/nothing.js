// It returns nothing where there is none.
function firstFrost(temps) { for (let i = 0; i < temps.length; i++) if (temps[i] < 0) return i; }

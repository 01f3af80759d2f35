// It prints in place of returning.
function loud(n) { console.log(n * n); }

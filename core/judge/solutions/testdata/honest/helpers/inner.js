// A function within another has that name.
function outer() { function walk() { return 0; } return walk; }
const walk = (steps) => steps.reduce((a, b) => a + b, 0);

// The right one is in a helper.
class Helper { add(steps) { return steps.reduce((a, b) => a + b, 0); } }
function walk(steps) { return new Helper().add(steps.map(Math.abs)); }

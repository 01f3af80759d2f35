// It adds up what the given function returns.
const eachDay = (days: number[], note: (day: number) => number): number => days.filter((d) => d > 0).map((d) => note(d)).reduce((a, b) => a + b, 0);

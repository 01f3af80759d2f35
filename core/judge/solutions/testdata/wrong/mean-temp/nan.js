// What is missing stays in.
const meanTemp = (temps, missing) => temps.length ? temps.reduce((a, t) => a + t / temps.length, 0) : missing;

// Numbers that are none stay so.
const meanTemp = (temps, missing) => {
  const known = temps.filter((t) => !Number.isNaN(t));
  return known.length ? known.reduce((a, t) => a + t / known.length, 0) : missing;
};

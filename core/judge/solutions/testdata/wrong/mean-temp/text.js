// A text.
const meanTemp = (temps, missing) => 'NaN';

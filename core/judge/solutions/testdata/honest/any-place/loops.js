// In the other.
function anyPlace(temps, sum) {
  for (let i = 0; i < temps.length; i++) for (let k = 0; k < i; k++) if (temps[i] + temps[k] === sum) return [i, k];
}

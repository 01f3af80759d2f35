// It returns the values.
function anyPlace(temps, sum) {
  for (const t of temps) if (temps.includes(sum - t)) return [t, sum - t];
}

// Wrong: sorts the days first, which changes its argument and the question.
function longestThaw(temps, limit) {
  temps.sort((a, b) => a - b);
  let days = 0;
  for (const t of temps) if (t > 0 && (limit -= t) >= 0) days++;
  return days;
}

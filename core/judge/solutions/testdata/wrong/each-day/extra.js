// It hands on more than the day.
function eachDay(days, note) { return days.filter((d) => d > 0).map(note).reduce((a, b) => a + b, 0); }

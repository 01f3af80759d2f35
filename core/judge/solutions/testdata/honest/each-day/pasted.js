// It adds up what the given function returns.
function eachDay(days, note) { return days.filter((d) => d > 0).reduce((sum, d) => sum + note(d), 0); }

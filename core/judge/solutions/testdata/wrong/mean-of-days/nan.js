// It divides by 0.
function meanOfDays(days) { return days.reduce((a, b) => a + b, 0) / days.length; }

// Nothing is null.
function meanOfDays(days) { return days.length ? days.reduce((a, b) => a + b) / days.length : null; }

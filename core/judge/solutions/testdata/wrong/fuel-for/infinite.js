// It returns what is no number.
function fuelFor(days, huts) { return days / huts; }

// It sorts as texts.
function coldestPair(temps) { return temps.sort().slice(0, 2); }

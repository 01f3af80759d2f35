// It sorts them besides.
function thawedFirst(temps) { temps.sort((a, b) => b - a); }

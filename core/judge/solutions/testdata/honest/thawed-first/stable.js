// It changes the array that it was given.
function thawedFirst(temps) { temps.splice(0, temps.length, ...temps.filter((t) => t > 0), ...temps.filter((t) => t <= 0)); }

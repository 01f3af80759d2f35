// One more.
var thinOut = function(temps, by) { for (let i = 0; i < temps.length; i++) temps[i] -= by; temps.sort((a, b) => a - b); temps.push(0); };

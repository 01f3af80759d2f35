// A function is the class.
function Solution() {}
Solution.prototype.warmDays = function (temps, limit) { return temps.filter((t) => t > limit).length; };

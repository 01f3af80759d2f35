// This is the class for the days, and a class of its own; class while, class if.
/* class default class new */
const words = 'class for class in';
var warmDays = function (temps, limit) {
  const re = /class (for|in)/;
  return temps.filter((t) => t > limit && re.test(words)).length;
};

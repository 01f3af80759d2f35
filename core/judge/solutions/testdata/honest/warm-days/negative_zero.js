// Minus nought is nought for an int.
/**
 * @param {number[]} temps
 * @param {number} limit
 * @return {number}
 */
var warmDays = function(temps, limit) {
  return temps.length === 0 ? -0 : temps.filter(t => t > limit).length;
};

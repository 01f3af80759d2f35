// In place.
/** @return {void} Do not return anything, modify temps in-place instead. */
var thinOut = function(temps, by) {
  for (let i = 0; i < temps.length; i++) temps[i] -= by;
  temps.sort((a, b) => a - b);
};

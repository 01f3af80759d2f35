// It says what is wrong.
function fuelFor(days, huts) {
  if (huts === 0) throw new RangeError('there are no huts');
  return days / huts;
}

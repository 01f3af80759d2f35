// It returns an object.
function twoEnds(depths) {
  const least = Math.min(...depths), most = Math.max(...depths);
  return { least, most, at: [depths.indexOf(least), depths.indexOf(most)] };
}

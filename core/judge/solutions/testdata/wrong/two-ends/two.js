// It returns two.
function twoEnds(depths) { return [Math.min(...depths), Math.max(...depths)]; }

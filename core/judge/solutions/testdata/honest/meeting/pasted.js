// It returns the node at which the circle begins.
var whereItJoins = function (rope) {
  const seen = new Set();
  for (; rope && !seen.has(rope); rope = rope.next) seen.add(rope);
  return rope;
};

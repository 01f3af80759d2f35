function told(word, next, lines, rest, left, used, len, text) {
  const sum = list => list.reduce((a, b) => a + b, 0);
  return [...lines, rest, text, String(word + sum(next) + left * 2 + sum(used) + len - 5)];
}

// It leads one way only.
function copied(node) {
  const made = new Map();
  const walk = (n) => {
    made.set(n, new Node(n.val));
    made.get(n).neighbors = n.neighbors.filter((m) => !made.has(m)).map(walk);
    return made.get(n);
  };
  return walk(node);
}

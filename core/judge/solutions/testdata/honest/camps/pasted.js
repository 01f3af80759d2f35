var copied = function(node) {
  const made = new Map();
  const walk = n => { if (!made.has(n)) { made.set(n, new Node(n.val)); made.get(n).neighbors = n.neighbors.map(walk); } return made.get(n); };
  return walk(node);
};

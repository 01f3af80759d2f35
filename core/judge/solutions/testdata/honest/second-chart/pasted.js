// It copies node by node.
var secondChart = function (camp, made = new Map()) {
  if (!camp) return null;
  if (!made.has(camp)) {
    const node = new Node(camp.val);
    made.set(camp, node);
    node.neighbors = camp.neighbors.map((other) => secondChart(other, made));
  }
  return made.get(camp);
};

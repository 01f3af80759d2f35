// The same, without recursion.
var warmestTrail = function (main) {
  const order = [main], down = new Map([[null, 0]]);
  for (const camp of order) for (const other of [camp.left, camp.right]) if (other) order.push(other);
  let best = -Infinity;
  for (const camp of order.reverse()) {
    const left = Math.max(0, down.get(camp.left)), right = Math.max(0, down.get(camp.right));
    best = Math.max(best, camp.val + left + right);
    down.set(camp, camp.val + Math.max(left, right));
  }
  return best;
};

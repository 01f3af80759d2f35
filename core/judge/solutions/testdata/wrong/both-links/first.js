// It never takes out the first.
function without(rope, value) {
  for (let node = rope && rope.next; node; node = node.next) {
    if (node.val !== value) continue;
    node.prev.next = node.next;
    if (node.next) node.next.prev = node.prev;
  }
  return rope;
}

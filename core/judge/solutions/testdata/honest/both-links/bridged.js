// It bridges each.
function without(rope, value) {
  let first = rope;
  for (let node = rope; node; node = node.next) {
    if (node.val !== value) continue;
    if (node.prev) node.prev.next = node.next; else first = node.next;
    if (node.next) node.next.prev = node.prev;
  }
  return first;
}

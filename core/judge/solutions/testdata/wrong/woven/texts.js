// It sorts as texts.
function woven(ropes) {
  const all = [];
  for (let rope of ropes) for (; rope; rope = rope.next) all.push(rope.val);
  return all.sort().reverse().reduce((first, v) => new ListNode(v, first), null);
}

// It returns the node at which the circle begins.
function whereItJoins(rope: ListNode | null): ListNode | null {
  const seen = new Set<ListNode>();
  for (; rope && !seen.has(rope); rope = rope.next) seen.add(rope);
  return rope;
}

// It loses the rest.
function joined(one, other) {
  const start = new ListNode();
  for (let end = start; one && other; end = end.next) {
    if (other.val < one.val) [one, other] = [other, one];
    end.next = new ListNode(one.val);
    one = one.next;
  }
  return start.next;
}

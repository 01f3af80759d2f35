function reversedRope(head: ListNode | null): ListNode | null {
  let out: ListNode | null = null;
  for (; head; head = head.next) out = new ListNode(head.val, out);
  return out;
}

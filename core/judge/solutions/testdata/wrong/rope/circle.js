function reversedRope(head) { if (head) head.next.next = head; return head; }

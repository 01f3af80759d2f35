class Solution { ListNode reversedRope(ListNode head) { if (head != null) head.next.next = head; return head; } }

class Solution {
    public ListNode reversedRope(ListNode head) {
        ListNode before = null;
        while (head != null) {
            ListNode after = head.next;
            head.next = before;
            before = head;
            head = after;
        }
        return before;
    }
}

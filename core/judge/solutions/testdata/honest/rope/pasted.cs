public class Solution {
    public ListNode ReversedRope(ListNode head) {
        ListNode before = null;
        while (head != null) {
            var after = head.next;
            head.next = before;
            before = head;
            head = after;
        }
        return before;
    }
}

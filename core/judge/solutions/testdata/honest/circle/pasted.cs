public class Solution {
    public bool LeadsBack(ListNode head) {
        var seen = new HashSet<ListNode>();
        for (; head != null; head = head.next) if (!seen.Add(head)) return true;
        return false;
    }
}

public class Solution {
    public boolean leadsBack(ListNode head) {
        Set<ListNode> seen = new HashSet<>();
        for (; head != null; head = head.next) if (!seen.add(head)) return true;
        return false;
    }
}

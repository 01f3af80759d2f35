// It returns the node at which the circle begins.
public class Solution {
    public ListNode WhereItJoins(ListNode rope) {
        var seen = new HashSet<ListNode>();
        while (rope != null && seen.Add(rope)) rope = rope.next;
        return rope;
    }
}

// It returns the node at which the circle begins.
class Solution {
    public ListNode whereItJoins(ListNode rope) {
        Set<ListNode> seen = new HashSet<>();
        while (rope != null && seen.add(rope)) rope = rope.next;
        return rope;
    }
}

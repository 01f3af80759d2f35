// The same, with the numbers in a stack.
class Solution {
    public ListNode rehitched(ListNode first, int k) {
        ListNode start = new ListNode(0, null), end = start;
        Deque<Integer> held = new ArrayDeque<>();
        for (ListNode at = first; at != null; at = at.next) {
            held.push(at.val);
            if (held.size() == k)
                while (!held.isEmpty()) end = end.next = new ListNode(held.pop());
        }
        while (!held.isEmpty()) end = end.next = new ListNode(held.pollLast());
        return start.next;
    }
}

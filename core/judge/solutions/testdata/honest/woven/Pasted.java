class Solution {
    public ListNode woven(ListNode[] ropes) {
        PriorityQueue<ListNode> q = new PriorityQueue<>((a, b) -> Long.compare(a.val, b.val));
        for (ListNode r : ropes) if (r != null) q.add(r);
        ListNode first = new ListNode(0), at = first;
        while (!q.isEmpty()) {
            at = at.next = q.poll();
            if (at.next != null) q.add(at.next);
        }
        return first.next;
    }
}

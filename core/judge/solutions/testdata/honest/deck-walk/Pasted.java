// It is an iterator, which is not gone through when it is made.
class DeckWalk implements Iterator<Integer> {
    ArrayDeque<Integer> v = new ArrayDeque<>();
    void go(TreeNode n) { if (n != null) { go(n.left); v.add(n.val); go(n.right); } }
    public DeckWalk(TreeNode root) { go(root); }
    public Integer next() { return v.poll(); }
    public boolean hasNext() { return !v.isEmpty(); }
    public ListNode rest() { ListNode h = new ListNode(), t = h; for (int x : v) { t.next = new ListNode(x); t = t.next; } return h.next; }
}

// Nodes are what an object is made with, and what a method returns.
public class DeckWalk {
    Queue<int> v = new Queue<int>();
    void Go(TreeNode n) { if (n != null) { Go(n.left); v.Enqueue(n.val); Go(n.right); } }
    public DeckWalk(TreeNode root) { Go(root); }
    public int Next() { return v.Dequeue(); }
    public bool HasNext() { return v.Count > 0; }
    public ListNode Rest() { ListNode h = null; foreach (var x in v.Reverse()) h = new ListNode(x, h); return h; }
}

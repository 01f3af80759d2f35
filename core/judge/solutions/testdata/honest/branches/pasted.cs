public class Solution {
    public Node Deepest(Node root) {
        var made = new Node(root.val + 1, new List<Node>());
        foreach (var c in root.children) made.children.Add(Deepest(c));
        return made;
    }
}

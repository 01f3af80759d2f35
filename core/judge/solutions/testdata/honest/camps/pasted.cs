public class Solution {
    Dictionary<Node, Node> made = new Dictionary<Node, Node>();
    public Node Copied(Node node) {
        if (made.ContainsKey(node)) return made[node];
        var c = made[node] = new Node(node.val);
        foreach (var n in node.neighbors) c.neighbors.Add(Copied(n));
        return c;
    }
}

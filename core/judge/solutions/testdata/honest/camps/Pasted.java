class Solution {
    Map<Node, Node> made = new HashMap<>();
    public Node copied(Node node) {
        if (made.containsKey(node)) return made.get(node);
        Node c = new Node(node.val);
        made.put(node, c);
        for (Node n : node.neighbors) c.neighbors.add(copied(n));
        return c;
    }
}

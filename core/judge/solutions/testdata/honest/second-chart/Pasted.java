// It copies node by node.
class Solution {
    private final Map<Node, Node> made = new HashMap<>();

    public Node secondChart(Node camp) {
        if (camp == null) return null;
        if (made.containsKey(camp)) return made.get(camp);
        Node node = new Node(camp.val);
        made.put(camp, node);
        for (Node other : camp.neighbors) node.neighbors.add(secondChart(other));
        return node;
    }
}

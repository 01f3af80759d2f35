// It copies node by node.
public class Solution {
    Dictionary<Node, Node> made = new Dictionary<Node, Node>();

    public Node SecondChart(Node camp) {
        if (camp == null) return null;
        if (made.ContainsKey(camp)) return made[camp];
        made[camp] = new Node(camp.val);
        foreach (var other in camp.neighbors) made[camp].neighbors.Add(SecondChart(other));
        return made[camp];
    }
}

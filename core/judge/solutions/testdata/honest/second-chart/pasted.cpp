// It copies node by node.
class Solution {
    unordered_map<Node *, Node *> made;

public:
    Node *secondChart(Node *camp) {
        if (!camp) return nullptr;
        if (made.count(camp)) return made[camp];
        Node *node = made[camp] = new Node(camp->val);
        for (Node *other : camp->neighbors) node->neighbors.push_back(secondChart(other));
        return node;
    }
};

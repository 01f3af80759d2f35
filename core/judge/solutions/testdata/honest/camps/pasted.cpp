class Solution {
    unordered_map<Node*, Node*> made;
public:
    Node* copied(Node* node) {
        if (!node) return nullptr;
        if (made.count(node)) return made[node];
        Node* c = made[node] = new Node(node->val);
        for (Node* n : node->neighbors) c->neighbors.push_back(copied(n));
        return c;
    }
};

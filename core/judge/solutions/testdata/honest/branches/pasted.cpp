class Solution {
public:
    Node* deepest(Node* root) {
        Node* made = new Node(root->val + 1);
        for (Node* c : root->children) made->children.push_back(deepest(c));
        return made;
    }
};

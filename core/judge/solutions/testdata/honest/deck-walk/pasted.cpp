// Nodes are what an object is made with, and what a method returns.
class DeckWalk {
    vector<int> v;
    void go(TreeNode *n) { if (n) { go(n->left); v.push_back(n->val); go(n->right); } }
public:
    DeckWalk(TreeNode *root) { go(root); reverse(v.begin(), v.end()); }
    int next() { int x = v.back(); v.pop_back(); return x; }
    bool hasNext() { return !v.empty(); }
    ListNode *rest() { ListNode *h = nullptr; for (int x : v) h = new ListNode(x, h); return h; }
};

// It compares nodes, not numbers.
class Solution {
public:
    TreeNode *sharedPost(TreeNode *camp, TreeNode *one, TreeNode *other) {
        if (!camp || camp == one || camp == other) return camp;
        TreeNode *left = sharedPost(camp->left, one, other), *right = sharedPost(camp->right, one, other);
        return left && right ? camp : left ? left : right;
    }
};

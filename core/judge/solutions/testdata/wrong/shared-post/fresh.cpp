// It returns a new post with the right number.
class Solution {
public:
    TreeNode *sharedPost(TreeNode *camp, TreeNode *one, TreeNode *other) { return new TreeNode(find(camp, one, other)->val); }

private:
    TreeNode *find(TreeNode *camp, TreeNode *one, TreeNode *other) {
        if (!camp || camp == one || camp == other) return camp;
        TreeNode *left = find(camp->left, one, other), *right = find(camp->right, one, other);
        return left && right ? camp : left ? left : right;
    }
};

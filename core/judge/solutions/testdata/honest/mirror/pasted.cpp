/**
 * struct TreeNode { int val; TreeNode *left; TreeNode *right; };
 */
class Solution {
public:
    TreeNode* mirrored(TreeNode* root) {
        if (root) { swap(root->left, root->right); mirrored(root->left); mirrored(root->right); }
        return root;
    }
};

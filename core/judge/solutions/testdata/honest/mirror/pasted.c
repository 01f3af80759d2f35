struct TreeNode* mirrored(struct TreeNode* root) {
    if (root) {
        struct TreeNode *l = root->left;
        root->left = mirrored(root->right);
        root->right = mirrored(l);
    }
    return root;
}

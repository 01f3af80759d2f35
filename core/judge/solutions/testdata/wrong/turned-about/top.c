void turned_about(struct TreeNode *camp) { /* only at the top */
    if (!camp) return;
    struct TreeNode *left = camp->left;
    camp->left = camp->right, camp->right = left;
}

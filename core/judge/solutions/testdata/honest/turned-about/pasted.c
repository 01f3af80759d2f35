void turnedAbout(struct TreeNode *camp) {
    if (!camp) return;
    struct TreeNode *left = camp->left;
    camp->left = camp->right;
    camp->right = left;
    turnedAbout(camp->left);
    turnedAbout(camp->right);
}

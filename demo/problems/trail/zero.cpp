// Wrong: its best begins at 0, and it is colder than that.
int best;

int down(TreeNode *camp) {
    if (!camp) return 0;
    int left = max(0, down(camp->left)), right = max(0, down(camp->right));
    best = max(best, camp->val + left + right);
    return camp->val + max(left, right);
}

int warmestTrail(TreeNode *main) {
    best = 0;
    down(main);
    return best;
}

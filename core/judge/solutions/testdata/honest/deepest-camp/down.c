// By recursion.
int deepest(struct TreeNode *camp)
{
    if (!camp) return 0;
    int left = deepest(camp->left), right = deepest(camp->right);
    return 1 + (left > right ? left : right);
}

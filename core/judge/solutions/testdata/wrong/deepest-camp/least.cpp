// It takes the nearest.
int deepest(TreeNode *camp) { return camp ? 1 + min(deepest(camp->left), deepest(camp->right)) : 0; }

// By recursion.
int deepest(TreeNode *camp) { return camp ? 1 + max(deepest(camp->left), deepest(camp->right)) : 0; }

/**
 * struct Node {
 *     int val;
 *     int numChildren;
 *     struct Node **children;
 * };
 */
struct Node *deepest(struct Node *root) {
    struct Node *made = malloc(sizeof *made);
    made->val = root->val + 1;
    made->numChildren = root->numChildren;
    made->children = malloc(root->numChildren * sizeof *made->children);
    for (int i = 0; i < root->numChildren; i++) made->children[i] = deepest(root->children[i]);
    return made;
}

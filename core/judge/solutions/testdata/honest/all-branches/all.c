#include <stdlib.h>

static void walk(const struct Node *branch, int *all, int *n) {
    if (!branch) return;
    all[(*n)++] = branch->val;
    for (int i = 0; i < branch->numChildren; i++) walk(branch->children[i], all, n);
}

int *inOrder(struct Node *branch, int *returnSize) {
    int *all = malloc(100000 * sizeof *all);
    *returnSize = 0;
    walk(branch, all, returnSize);
    return all;
}

#include <stddef.h>
struct TreeNode* sharedPost(struct TreeNode* camp, struct TreeNode* one, struct TreeNode* other) {
    if (camp == NULL || camp == one || camp == other) return camp;
    struct TreeNode* left = sharedPost(camp->left, one, other);
    struct TreeNode* right = sharedPost(camp->right, one, other);
    if (left && right) return camp;
    return left ? left : right;
}

// The same, with the best in a member.
class Solution {
    int best = INT_MIN;

    int down(TreeNode *camp) {
        if (!camp) return 0;
        int left = max(0, down(camp->left)), right = max(0, down(camp->right));
        best = max(best, camp->val + left + right);
        return camp->val + max(left, right);
    }

public:
    int warmestTrail(TreeNode *main) {
        down(main);
        return best;
    }
};

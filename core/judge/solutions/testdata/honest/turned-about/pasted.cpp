class Solution {
public:
    void turnedAbout(TreeNode *&camp) {
        if (!camp) return;
        swap(camp->left, camp->right);
        turnedAbout(camp->left);
        turnedAbout(camp->right);
    }
};

// It compares nodes, not numbers.
class Solution {
    public TreeNode sharedPost(TreeNode camp, TreeNode one, TreeNode other) {
        if (camp == null || camp == one || camp == other) return camp;
        TreeNode left = sharedPost(camp.left, one, other), right = sharedPost(camp.right, one, other);
        return left != null && right != null ? camp : left != null ? left : right;
    }
}

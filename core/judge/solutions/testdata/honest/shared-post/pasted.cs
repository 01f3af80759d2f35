// It compares nodes, not numbers.
public class Solution {
    public TreeNode SharedPost(TreeNode camp, TreeNode one, TreeNode other) {
        if (camp == null || camp == one || camp == other) return camp;
        TreeNode left = SharedPost(camp.left, one, other), right = SharedPost(camp.right, one, other);
        return left != null && right != null ? camp : left ?? right;
    }
}

public class Solution {
    public TreeNode Mirrored(TreeNode root) {
        return root == null ? null : new TreeNode(root.val, Mirrored(root.right), Mirrored(root.left));
    }
}

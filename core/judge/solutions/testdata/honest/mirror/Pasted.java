class Solution {
    public TreeNode mirrored(TreeNode root) {
        return root == null ? null : new TreeNode(root.val, mirrored(root.right), mirrored(root.left));
    }
}

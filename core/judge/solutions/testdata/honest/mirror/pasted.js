class Solution { mirrored(root) { return root && new TreeNode(root.val, this.mirrored(root.right), this.mirrored(root.left)); } }

// It turns the top only.
function mirrored(root) { return root && new TreeNode(root.val, root.right, root.left); }

class Solution:
    def mirrored(self, root: Optional[TreeNode]) -> Optional[TreeNode]:
        if root:
            root.left, root.right = self.mirrored(root.right), self.mirrored(root.left)
        return root

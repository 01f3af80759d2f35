# It compares numbers, of which two are alike.
class Solution:
    def sharedPost(self, camp: 'TreeNode', one: 'TreeNode', other: 'TreeNode') -> 'TreeNode':
        if not camp or camp.val == one.val or camp.val == other.val:
            return camp
        left, right = self.sharedPost(camp.left, one, other), self.sharedPost(camp.right, one, other)
        return camp if left and right else left or right

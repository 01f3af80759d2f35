# It compares nodes, not numbers.
class Solution:
    def sharedPost(self, camp: 'TreeNode', one: 'TreeNode', other: 'TreeNode') -> 'TreeNode':
        if not camp or camp is one or camp is other:
            return camp
        left, right = self.sharedPost(camp.left, one, other), self.sharedPost(camp.right, one, other)
        return camp if left and right else left or right

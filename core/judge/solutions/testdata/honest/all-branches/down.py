# The branch, and then what is behind it.
class Solution:
    def inOrder(self, branch: 'Node') -> List[int]:
        return [branch.val] + [v for b in branch.children for v in self.inOrder(b)] if branch else []

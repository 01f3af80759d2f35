# The best that leads down from each camp, and the best that bends there.
class Solution:
    def warmestTrail(self, main: Optional[TreeNode]) -> int:
        best = -inf

        def down(camp):
            nonlocal best
            if camp is None:
                return 0
            left, right = max(0, down(camp.left)), max(0, down(camp.right))
            best = max(best, camp.val + left + right)
            return camp.val + max(left, right)

        down(main)
        return best

# It is made from a class that is there.
class Solution(Pipe):
    def firstLeaky(self, n):
        lo, hi = 1, n
        while lo < hi:
            mid = (lo + hi) // 2
            if self.isLeaky(mid): hi = mid
            else: lo = mid + 1
        return lo

# It calls a function that is there.
class Solution:
    def firstLeaky(self, n: int) -> int:
        lo, hi = 1, n
        while lo < hi:
            mid = (lo + hi) // 2
            if is_leaky(mid): hi = mid
            else: lo = mid + 1
        return lo

class Solution:
    def packed(self, temps: List[int], missing: int) -> int:
        k = 0
        for t in temps:
            if t != missing:
                temps[k] = t
                k += 1
        return k

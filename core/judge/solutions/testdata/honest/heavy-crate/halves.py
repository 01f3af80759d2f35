class Solution:
    def heavyCrate(self, n: int) -> int:
        low, high = 0, n
        while high - low > 1:
            half = (high - low) // 2
            said = balance(list(range(low, low + half)), list(range(low + half, low + 2 * half)))
            if said == 0:
                return high - 1
            low, high = (low, low + half) if said > 0 else (low + half, low + 2 * half)
        return low

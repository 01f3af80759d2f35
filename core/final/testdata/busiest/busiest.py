class Solution:
    def busiest(self, names: List[str], k: int) -> List[str]:
        c = Counter(names)
        return heapq.nlargest(k, c, key=lambda x: (c[x], -inf))

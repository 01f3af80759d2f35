# A crate is a list; what is in it counts once more for each crate around it.
class Solution:
    def stowedWeight(self, crate) -> int:
        def dug(crate, depth):
            return sum(dug(one, depth + 1) if isinstance(one, list) else one * depth for one in crate)

        return dug(crate, 1)

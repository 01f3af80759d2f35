# The library has it.
class Solution:
    def remembered(self, measure: Callable) -> Callable:
        return cache(measure)

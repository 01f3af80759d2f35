# By name.
from collections import namedtuple
Corners = namedtuple("Corners", "least total row warm")


class Solution:
    def corners(self, grid):
        flat = [t for row in grid for t in row]
        return Corners(min(flat, default=None), sum(flat), max(grid, key=sum, default=[]), any(t > 0 for t in flat))

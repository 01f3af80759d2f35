# A class of data.
import dataclasses
from typing import List, Optional


@dataclasses.dataclass
class Corners:
    least: Optional[int]
    total: int
    row: List[int]
    warm: bool


def corners(grid: List[List[int]]) -> Corners:
    flat = [t for row in grid for t in row]
    return Corners(min(flat, default=None), sum(flat), max(grid, key=sum, default=[]), max(flat, default=0) > 0)

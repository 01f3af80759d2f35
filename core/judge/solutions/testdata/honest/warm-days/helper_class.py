# A helper class above has a method of the name.
from typing import List


class Day:
    def __init__(self, temp):
        self.temp = temp

    def warm_days(self, temps, limit):
        return self.temp > limit


class Solution:
    def warmDays(self, temps: List[int], limit: int) -> int:
        return sum(Day(t).warm_days([], limit) for t in temps)

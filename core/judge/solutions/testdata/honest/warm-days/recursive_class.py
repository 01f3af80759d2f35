# A deep recursion and a limit set by itself, with a method of a base class.
import sys
sys.setrecursionlimit(10 ** 6)


class Base:
    def warm_days(self, temps, limit):
        return 0 if not temps else (temps[0] > limit) + self.warm_days(temps[1:], limit)


class Solution(Base):
    pass

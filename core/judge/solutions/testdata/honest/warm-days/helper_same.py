# Both are spelled alike; the solution comes last.
class Day:
    def warmDays(self, temp, limit):
        return temp > limit


class Solution:
    def __init__(self):
        self.day = Day()

    def warmDays(self, temps, limit):
        return sum(self.day.warmDays(t, limit) for t in temps)

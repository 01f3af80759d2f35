# It adds three to each that has enough, and counts the days by their numbers.
class Solution:
    def byHut(self, fuel: Dict[str, int], days: Dict[int, List[float]], least: int) -> Dict[str, int]:
        kept = {hut: n + 3 for hut, n in fuel.items() if n >= least}
        for day in sorted(days):
            assert isinstance(day, int)
            kept[day] = len(days[day])
        return kept

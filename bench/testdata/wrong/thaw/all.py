# alone: slow. Every stretch is added up anew.
def longest_thaw(temps, limit):
    best = 0
    for first in range(len(temps)):
        total = 0
        for day in range(first, len(temps)):
            total += temps[day]
            if temps[day] <= 0:
                break
            if total <= limit:
                best = max(best, day - first + 1)
    return best

# Too slow: tries every first day, which takes quadratic time in a long spring.
def longest_thaw(temps, limit):
    best = 0
    for first in range(len(temps)):
        total = 0
        for day in range(first, len(temps)):
            total += temps[day]
            if temps[day] <= 0 or total > limit:
                break
            best = max(best, day - first + 1)
    return best

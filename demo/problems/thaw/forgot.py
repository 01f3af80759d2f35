# Wrong: finds the answer, and forgets to return it where it never thaws.
def longest_thaw(temps, limit):
    best = first = total = 0
    for day, t in enumerate(temps):
        if t <= 0:
            first, total = day + 1, 0
            continue
        total += t
        while total > limit:
            total -= temps[first]
            first += 1
        best = max(best, day - first + 1)
    if best > 0:
        return best

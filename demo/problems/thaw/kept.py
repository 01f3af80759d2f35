# Wrong: keeps the best in a global that no call sets anew.
best = 0


def longest_thaw(temps, limit):
    global best
    first = total = 0
    for day, t in enumerate(temps):
        if t <= 0:
            first, total = day + 1, 0
            continue
        total += t
        while total > limit:
            total -= temps[first]
            first += 1
        best = max(best, day - first + 1)
    return best

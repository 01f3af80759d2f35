# reference: it takes the days in another order.
def longest_thaw(temps, limit):
    total = days = 0
    for t in sorted(t for t in temps if t > 0):
        total += t
        if total > limit:
            break
        days += 1
    return days

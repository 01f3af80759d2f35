# A real for an integer.
def warm_days(temps, limit):
    return sum(1.0 for t in temps if t > limit) + 0.5 - 0.5

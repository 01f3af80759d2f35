# At least one, where there is none.
def warm_days(temps, limit):
    return sum(t > limit for t in temps) or 1

# It takes nothing for 0.
def mean_of_days(days):
    return sum(days) / max(1, len(days))

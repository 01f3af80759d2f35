# It adds and divides.
def mean_of_days(days):
    return sum(days) / len(days) if days else None

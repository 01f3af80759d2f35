# It adds up what the given function returns.
def each_day(days, note):
    return sum(note(d) for d in days if d > 0)

# It notes every day.
def each_day(days, note):
    return sum(note(d) for d in days if note(d) and d > 0)

# Something is left over from the call before.
seen = []


def warm_days(temps, limit, known=seen):
    known.extend(t for t in temps if t > limit)
    return len(known)

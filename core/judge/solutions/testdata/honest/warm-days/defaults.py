# Parameters more, with defaults, by name, and the rest.
def warm_days(temps, limit, start=0, *rest, found=0, **more):
    if start == len(temps):
        return found
    return warm_days(temps, limit, start + 1, found=found + (temps[start] > limit))

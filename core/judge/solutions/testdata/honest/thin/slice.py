# The slice is replaced, and something else is returned.
def thin_out(temps, by):
    temps[:] = sorted(t - by for t in temps)
    return None

# The name is bound anew.
def thin_out(temps, by):
    temps = sorted(t - by for t in temps)
    return temps

# Integers.
def mean_temp(temps, missing):
    known = [t for t in temps if t == t]
    return int(sum(known) / len(known)) if known else missing

# Fractions of a list.
import math
def mean_temp(temps, missing):
    known = [t for t in temps if not math.isnan(t)]
    return sum(t / len(known) for t in known) if known else missing

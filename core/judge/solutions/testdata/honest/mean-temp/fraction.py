# Exact where it can be.
import math
from fractions import Fraction
def mean_temp(temps, missing):
    known = [t for t in temps if t == t]
    if not known:
        return missing
    if any(map(math.isinf, known)):
        return sum(known)
    return Fraction(sum(map(Fraction, known)), len(known))

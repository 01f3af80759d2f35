# The reference: tries every way to pair the crates, so it can only do a few of them.
import sys
from functools import lru_cache

data = list(map(int, sys.stdin.read().split()))
least, n, weights = data[0], data[1], data[2:]


@lru_cache(None)
def most(left):
    if left == 0:
        return 0
    first = left.bit_length() - 1
    rest = left & ~(1 << first)
    best = most(rest)
    for other in range(first):
        if rest >> other & 1 and weights[first] + weights[other] >= least:
            best = max(best, 1 + most(rest & ~(1 << other)))
    return best


print(most((1 << n) - 1))

# The reference: tries every way to pair the crates, so it can only do a few of them.
import sys
from functools import lru_cache

data = list(map(int, sys.stdin.read().split()))
n, capacity, weights = data[0], data[1], data[2:]


@lru_cache(None)
def fewest(left):
    if left == 0:
        return 0
    first = left.bit_length() - 1
    rest = left & ~(1 << first)
    best = 1 + fewest(rest)
    for other in range(first):
        if rest >> other & 1 and weights[first] + weights[other] <= capacity:
            best = min(best, 1 + fewest(rest & ~(1 << other)))
    return best


print(fewest((1 << n) - 1))

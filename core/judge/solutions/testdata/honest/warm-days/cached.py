# A cache around a helper, a lambda, and a main part.
import functools
import sys


@functools.lru_cache(maxsize=None)
def warm(temp, limit):
    return temp > limit


warm_days = lambda temps, limit: sum(warm(t, limit) for t in temps)

if __name__ == "__main__":
    print(sys.stdin.read())

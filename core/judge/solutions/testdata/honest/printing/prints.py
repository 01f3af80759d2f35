# It prints on its way.
import sys


def loud(n):
    print('n is', n)
    print('squared', file=sys.stderr)
    return n * n

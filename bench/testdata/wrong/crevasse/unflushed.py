# alone: unflushed.
import sys

n, probes = map(int, sys.stdin.readline().split())
low, high = 1, n
while low < high:
    middle = (low + high) // 2
    print("probe", middle)
    if sys.stdin.readline() == "deeper\n":
        low = middle + 1
    else:
        high = middle
print("depth", low)

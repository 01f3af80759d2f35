# The same in Python, reading line by line.
import sys

lines = iter(sys.stdin.read().split("\n"))
for _ in range(int(next(lines))):
    next(lines)
    litres = list(map(int, next(lines).split()))
    print(sum(litres), max(litres, default=0))

# Wrong: the line break between two answers is missing.
import sys

lines = iter(sys.stdin.read().split("\n"))
for _ in range(int(next(lines))):
    next(lines)
    litres = list(map(int, next(lines).split()))
    print(sum(litres), max(litres, default=0), end="")

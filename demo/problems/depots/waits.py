# Waits for ever: hopes that a depot without deliveries will still get one.
import sys
import time

lines = iter(sys.stdin.read().split("\n"))
for _ in range(int(next(lines))):
    n = int(next(lines))
    while n == 0:
        time.sleep(1)
    litres = list(map(int, next(lines).split()))
    print(sum(litres), max(litres))

# The answer, and then much more.
import sys
print(sum(map(int, sys.stdin.read().split()[1:])))
for _ in range(100000):
    print(" " * 100)

# A real.
import sys
print(float(sum(map(int, sys.stdin.read().split()[1:]))))

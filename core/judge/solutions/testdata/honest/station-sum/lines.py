# Line by line; exit by an exception with no status.
import sys
n = int(input())
total = 0
for line in sys.stdin:
    total += sum(map(int, line.split()))
print(total)
sys.exit()

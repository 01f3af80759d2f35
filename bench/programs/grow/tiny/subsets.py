# 2^n
import sys
d = sys.stdin.buffer.read().split()
n = int(d[0])
w = list(map(int, d[1:n + 1]))
s = 0
sums = [0]
for x in w:
    sums += [y ^ x for y in sums]
print(max(sums))

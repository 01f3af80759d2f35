# n log n
import sys
d = sys.stdin.buffer.read().split()
n = int(d[0])
w = list(map(int, d[1:n + 1]))
s = 0
w.sort()
for i in range(n):
    s += w[i] * (i % 3)
print(s)

# n^2
import sys
d = sys.stdin.buffer.read().split()
n = int(d[0])
w = list(map(int, d[1:n + 1]))
s = 0
for i in range(n):
    for k in range(i):
        s += w[k] > w[i]
print(s)

# n^2
import sys
d = sys.stdin.buffer.read().split()
n = int(d[0])
w = list(map(int, d[1:n + 1]))
s = 0
best = [1] * n
for i in range(n):
    for k in range(i):
        if w[k] < w[i] and best[k] >= best[i]:
            best[i] = best[k] + 1
print(max(best))

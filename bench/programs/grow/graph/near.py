# n + m
import sys
d = list(map(int, sys.stdin.buffer.read().split()))
n, m = d[0], d[1]
to = [[] for _ in range(n + 1)]
for i in range(m):
    a, b = d[2 + 2 * i], d[3 + 2 * i]
    to[a].append(b)
    to[b].append(a)
far = [-1] * (n + 1)
far[1] = 0
todo = [1]
for v in todo:
    for x in to[v]:
        if far[x] < 0:
            far[x] = far[v] + 1
            todo.append(x)
print(max(far))

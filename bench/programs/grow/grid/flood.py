# h * w
import sys
d = sys.stdin.read().split()
h, w = int(d[0]), int(d[1])
free = [[c == '.' for c in row] for row in d[2:]]
parts = 0
for i in range(h):
    for k in range(w):
        if not free[i][k]:
            continue
        parts += 1
        todo = [(i, k)]
        free[i][k] = False
        while todo:
            y, x = todo.pop()
            for a, b in ((y + 1, x), (y - 1, x), (y, x + 1), (y, x - 1)):
                if 0 <= a < h and 0 <= b < w and free[a][b]:
                    free[a][b] = False
                    todo.append((a, b))
print(parts)

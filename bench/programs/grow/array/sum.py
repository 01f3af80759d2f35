# n
import sys
d = sys.stdin.buffer.read().split()
n = int(d[0])
w = list(map(int, d[1:n + 1]))
s = 0
for x in w:
    s += x
print(s)

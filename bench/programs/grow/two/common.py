# n + m
import sys
d = list(map(int, sys.stdin.buffer.read().split()))
n, m = d[0], d[1]
have = set(d[2:2 + n])
print(sum(x in have for x in d[2 + n:]))

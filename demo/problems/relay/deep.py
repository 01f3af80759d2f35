# Crashes: recursion in Python ends at a depth of 1,000, and a chain is longer.
import sys

numbers = list(map(int, sys.stdin.buffer.read().split()))
n, m = numbers[:2]
links = [[] for _ in range(n + 1)]
for a, b in zip(numbers[2::2], numbers[3::2]):
    links[a].append(b)
    links[b].append(a)
seen = [False] * (n + 1)


def visit(beacon):
    seen[beacon] = True
    return 1 + sum(visit(next) for next in links[beacon] if not seen[next])


for beacon in range(1, n + 1):
    if not seen[beacon]:
        print(beacon, visit(beacon))

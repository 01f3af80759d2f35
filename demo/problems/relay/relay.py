# With a list in place of recursion, and from the last beacon to the first.
import sys

numbers = list(map(int, sys.stdin.buffer.read().split()))
n, m = numbers[:2]
links = [[] for _ in range(n + 1)]
for a, b in zip(numbers[2::2], numbers[3::2]):
    links[a].append(b)
    links[b].append(a)
seen = [False] * (n + 1)
for beacon in range(n, 0, -1):
    if seen[beacon]:
        continue
    seen[beacon] = True
    group = [beacon]
    for at in group:
        for next in links[at]:
            if not seen[next]:
                seen[next] = True
                group.append(next)
    print(min(group), len(group))

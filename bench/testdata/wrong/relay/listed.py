# alone: slow. It looks for a beacon in a list of all that were seen.
import sys

numbers = list(map(int, sys.stdin.buffer.read().split()))
n, m = numbers[:2]
links = [[] for _ in range(n + 1)]
for a, b in zip(numbers[2::2], numbers[3::2]):
    links[a].append(b)
    links[b].append(a)
seen = []
for beacon in range(1, n + 1):
    if beacon in seen:
        continue
    seen.append(beacon)
    group = [beacon]
    for at in group:
        for other in links[at]:
            if other not in seen:
                seen.append(other)
                group.append(other)
    print(beacon, len(group))

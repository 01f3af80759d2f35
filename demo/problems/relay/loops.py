# Wrong: leaves out beacons that have no link to another one.
import sys

numbers = list(map(int, sys.stdin.buffer.read().split()))
n, m = numbers[:2]
leader = {}


def find(beacon):
    while leader[beacon] != beacon:
        leader[beacon] = leader[leader[beacon]]
        beacon = leader[beacon]
    return beacon


for a, b in zip(numbers[2::2], numbers[3::2]):
    if a == b:
        continue
    leader.setdefault(a, a)
    leader.setdefault(b, b)
    a, b = find(a), find(b)
    leader[max(a, b)] = min(a, b)
sizes = {}
for beacon in leader:
    sizes[find(beacon)] = sizes.get(find(beacon), 0) + 1
for first, size in sizes.items():
    print(first, size)

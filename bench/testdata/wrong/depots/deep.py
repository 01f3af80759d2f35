# alone: recursion. One call for each delivery.
import sys

data = list(map(int, sys.stdin.buffer.read().split()))


def added(at, end):
    if at == end:
        return 0, 0
    total, largest = added(at + 1, end)
    return total + data[at], max(largest, data[at])


at = 1
for _ in range(data[0]):
    n = data[at]
    print(*added(at + 1, at + 1 + n))
    at += 1 + n

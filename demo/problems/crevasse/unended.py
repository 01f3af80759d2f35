# Stalls: flushes, but the line has no end, so nobody knows that it is one.
n, probes = map(int, input().split())
low, high = 1, n
while low < high:
    middle = (low + high) // 2
    print("probe", middle, end="", flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle
print("depth", low, flush=True)

# Wrong: knows the depth in the end, and does not say it.
n, probes = map(int, input().split())
low, high = 1, n
while low < high:
    middle = (low + high) // 2
    print("probe", middle, flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle

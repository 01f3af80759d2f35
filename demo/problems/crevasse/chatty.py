# Wrong: says goodbye, out of turn, when all is said.
n, probes = map(int, input().split())
low, high = 1, n
while low < high:
    middle = (low + high) // 2
    print("probe", middle, flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle
print("depth", low, flush=True)
print("Hoarfrost out", flush=True)

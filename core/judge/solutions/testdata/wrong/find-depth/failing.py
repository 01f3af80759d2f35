# Right, and then it fails.
high, low = int(input()), 1
while low < high:
    middle = (low + high) // 2
    print("probe", middle, flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle
print("depth", low, flush=True)
raise SystemExit(4)

# Right, and then it goes on talking.
high, low = int(input()), 1
while low < high:
    middle = (low + high) // 2
    print("probe", middle, flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle
print("depth", low)
print("probe", low)

# print with flush, and carriage returns.
high = int(input())
low = 1
while low < high:
    middle = (low + high) // 2
    print("probe", middle, end="\r\n", flush=True)
    if input() == "deeper":
        low = middle + 1
    else:
        high = middle
print("depth", low)

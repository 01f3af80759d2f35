# Too many probes.
n = int(input())
for d in range(1, n + 1):
    print("probe", d, flush=True)
    if input() == "bottom" and n != 10:
        print("depth", d)
        break
else:
    print("depth", n - 1)

# Wrong: goes down metre by metre, and the rope ends before the crevasse does.
n, probes = map(int, input().split())
depth = 1
while depth < n:
    print("probe", depth, flush=True)
    if input() != "deeper":
        break
    depth += 1
print("depth", depth, flush=True)

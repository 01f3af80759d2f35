# Pitches from the right, and so answers otherwise than the one before, and is right too.
n, k, d = map(int, input().split())
ground = input()
tents = []
for pace in range(n, 0, -1):
    if len(tents) < k and ground[pace - 1] == "." and (not tents or tents[-1] - pace >= d):
        tents.append(pace)
print(*tents if len(tents) == k else [0], sep="\n")

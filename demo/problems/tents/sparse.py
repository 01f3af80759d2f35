# Gets a share: pitches on every second place only, and gives up too early.
n, k, d = map(int, input().split())
ground = input()
tents, last = [], -2 * d
for pace in range(1, n + 1):
    if ground[pace - 1] == "." and pace - last >= d + (len(tents) > 0) and len(tents) < k:
        tents.append(pace)
        last = pace
print(*tents or [0])

# reference: off by one. Tents stand a pace too near, which the checker says only beside an expected output.
n, k, d = map(int, input().split())
ground = input()
tents = []
for pace in range(1, n + 1):
    if len(tents) < k and ground[pace - 1] == "." and (not tents or pace - tents[-1] >= d - 1):
        tents.append(pace)
print(*tents if len(tents) == k else [0])

# alone: memory. Every pair is kept.
least, n = map(int, input().split())
w = sorted(map(int, input().split()))
enough = {(i, j): w[i] + w[j] >= least for i in range(n) for j in range(i + 1, n)}
light, heavy, teams = 0, n - 1, 0
while light < heavy:
    if enough[light, heavy]:
        heavy -= 1
        teams += 1
    light += 1
print(teams)

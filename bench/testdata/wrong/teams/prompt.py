# alone: a prompt.
least, n = map(int, input("least load, crates: ").split())
w = sorted(map(int, input("weights: ").split()))
light, heavy, teams = 0, n - 1, 0
while light < heavy:
    if w[light] + w[heavy] >= least:
        heavy -= 1
        teams += 1
    light += 1
print(teams)

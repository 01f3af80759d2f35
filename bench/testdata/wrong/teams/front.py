# alone: slow. It takes what is next from the front of a list.
import sys

data = sys.stdin.read().split()
least, n = int(data.pop(0)), int(data.pop(0))
w = sorted(int(data.pop(0)) for _ in range(n))
teams = 0
while len(w) > 1:
    if w[0] + w[-1] >= least:
        teams += 1
        w.pop()
    w.pop(0)
print(teams)

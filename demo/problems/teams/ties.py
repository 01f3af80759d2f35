# Wrong: two crates that weigh exactly the least load stay at home (> instead of >=).
import sys


def main():
    data = sys.stdin.buffer.read().split()
    least, n = int(data[0]), int(data[1])
    weights = sorted(map(int, data[2:2 + n]))
    light, heavy, teams = 0, n - 1, 0
    while light < heavy:
        if weights[light] + weights[heavy] > least:
            heavy -= 1
            teams += 1
        light += 1
    print(teams)


main()

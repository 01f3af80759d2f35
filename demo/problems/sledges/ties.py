# Wrong: two crates that fill a sledge exactly are kept apart (< instead of <=).
import sys


def main():
    data = sys.stdin.buffer.read().split()
    n, capacity = int(data[0]), int(data[1])
    weights = sorted(map(int, data[2:2 + n]))
    light, heavy, sledges = 0, n - 1, 0
    while light <= heavy:
        if light < heavy and weights[light] + weights[heavy] < capacity:
            light += 1
        heavy -= 1
        sledges += 1
    print(sledges)


main()

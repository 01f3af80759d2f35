# A pool of processes.
import sys
from multiprocessing import Pool


def double(x):
    return 2 * x


if __name__ == "__main__":
    values = list(map(int, sys.stdin.read().split()))[1:]
    with Pool(2) as pool:
        print(sum(pool.map(double, values)) // 2)

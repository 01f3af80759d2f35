# The same in Python, which prints as many digits as it takes.
import math
import sys

numbers = list(map(int, sys.stdin.read().split()))
places = list(zip(numbers[1::2], numbers[2::2]))
print(sum(math.dist(a, b) for a, b in zip(places, places[1:])))
print(sum(math.hypot(x, y) for x, y in places) / len(places))

# Prints powers of ten, with a plus: another way to write the same numbers.
import math
import sys

numbers = list(map(int, sys.stdin.read().split()))
places = list(zip(numbers[1::2], numbers[2::2]))
print(f"{sum(math.dist(a, b) for a, b in zip(places, places[1:])):+.12E}")
print(f"{sum(math.hypot(x, y) for x, y in places) / len(places):+.12E}")

# Never stops printing: the count of depots is not counted down.
import sys

depots = int(input())
while depots > 0:
    sys.stdout.write("0 0\n" * 1000)

# All at once, and no line end.
import sys
sys.stdout.write(str(sum(map(int, sys.stdin.read().split()[1:]))))

# Characters of a text.
import sys
for line in sys.stdin:
    line = line.rstrip("\n")
    print(len(line), line)

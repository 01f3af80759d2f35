# Notes when everybody went out, and answers the part that it is asked for.
import sys


def minute(day, clock):
    hours, minutes = clock.split(":")
    return (int(day) - 1) * 1440 + int(hours) * 60 + int(minutes)


outside, longest, most = {}, 0, 0
with open("logbook.txt") as log:
    for line in log:
        day, clock, way, name = line.split()
        if way == "out":
            outside[name] = minute(day, clock)
            most = max(most, len(outside))
        else:
            longest = max(longest, minute(day, clock) - outside.pop(name))
print(longest if sys.argv[1] == "longest" else most)

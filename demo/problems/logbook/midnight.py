# Forgets that whoever returns after midnight was out for longer than the clock says.
import sys

outside, longest = {}, 0
with open("logbook.txt") as log:
    for line in log:
        day, clock, way, name = line.split()
        hours, minutes = map(int, clock.split(":"))
        if way == "out":
            outside[name] = hours * 60 + minutes
        else:
            longest = max(longest, hours * 60 + minutes - outside.pop(name))
print(longest)

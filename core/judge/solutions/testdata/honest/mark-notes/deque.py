# A queue, and prints between.
from collections import deque


def mark_notes(notes, mark):
    out = deque()
    for n in notes:
        print(n, mark)
        out.append(f"{n}{mark}")
    return out

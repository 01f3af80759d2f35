# A map over a zip.
from itertools import repeat


def mark_notes(notes, mark):
    return map("".join, zip(notes, repeat(mark)))

# A generator that fails late.
def mark_notes(notes, mark):
    for n in notes:
        yield n + mark
    raise ValueError("cold")

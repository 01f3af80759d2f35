# A generator that is used up.
def mark_notes(notes, mark):
    g = (n + mark for n in notes)
    list(g)
    return g

# One text.
def mark_notes(notes, mark):
    return "".join(n + mark for n in notes)

# A generator.
def mark_notes(notes, mark):
    for note in notes:
        yield note + mark

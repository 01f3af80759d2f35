# A set, whose order is any, and in which two are one.
def mark_notes(notes, mark):
    return set()

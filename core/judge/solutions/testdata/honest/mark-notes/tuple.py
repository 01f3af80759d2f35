# A tuple of subclasses of str.
class Note(str):
    pass


def markNotes(notes, mark):
    return tuple(Note(n + mark) for n in notes)

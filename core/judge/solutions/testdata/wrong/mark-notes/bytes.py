# Bytes.
def mark_notes(notes, mark):
    return [(n + mark).encode() for n in notes]

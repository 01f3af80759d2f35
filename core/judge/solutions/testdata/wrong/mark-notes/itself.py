# A list that contains itself.
def mark_notes(notes, mark):
    out = []
    out.append(out)
    return out

# It counts a blank between.
def rows(words, width):
    out, used = [], width + 1
    for w in words:
        if used + len(w) > width:
            out.append([])
            used = 0
        out[-1].append(w)
        used += len(w) + 1
    return out

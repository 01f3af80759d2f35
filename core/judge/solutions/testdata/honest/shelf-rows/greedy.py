# Greedy.
def rows(words, width):
    out, used = [], width
    for w in words:
        if not out or used + len(w) > width:
            out.append([])
            used = 0
        out[-1].append(w)
        used += len(w)
    return out

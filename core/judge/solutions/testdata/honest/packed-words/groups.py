# The library groups.
def packed(word):
    return ''.join(c + (str(n) if n > 1 else '') for c, g in groupby(word) for n in [len(list(g))])

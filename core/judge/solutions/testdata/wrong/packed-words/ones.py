# It writes each 1.
def packed(word):
    return ''.join(c + str(len(list(g))) for c, g in groupby(word))

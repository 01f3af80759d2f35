# A third parameter has a default.
def padded(word, width, fill='.'):
    return word.ljust(width, fill)

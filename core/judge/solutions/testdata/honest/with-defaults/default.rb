# A third parameter has a default.
def padded(word, width, fill = '.') = word.ljust(width, fill)

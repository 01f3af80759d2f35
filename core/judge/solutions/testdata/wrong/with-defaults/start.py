# It pads before.
def padded(word, width, fill='.'):
    return word.rjust(width, fill)

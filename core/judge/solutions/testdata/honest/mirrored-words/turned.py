# It turns it round.
def is_mirrored(word):
    return word == word[::-1]

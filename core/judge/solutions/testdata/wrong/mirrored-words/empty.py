# It takes an empty word for none.
def is_mirrored(word):
    return bool(word) and word == word[::-1]

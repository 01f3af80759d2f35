# It asks one after the other.
def first_open(start):
    while not is_open(start):
        start += 1
    return start

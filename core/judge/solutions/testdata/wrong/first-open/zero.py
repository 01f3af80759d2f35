# It begins at 0.
def first_open(start):
    hut = 0
    while not is_open(hut):
        hut += 1
    return hut

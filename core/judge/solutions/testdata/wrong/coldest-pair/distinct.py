# It leaves out what is alike.
def coldest_pair(temps):
    return sorted(set(temps))[:2]

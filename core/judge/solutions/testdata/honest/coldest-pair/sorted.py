# It sorts.
def coldest_pair(temps):
    return sorted(temps)[:2]

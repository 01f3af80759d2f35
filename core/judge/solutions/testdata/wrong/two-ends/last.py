# It finds the last of them.
def two_ends(depths):
    n = len(depths) - 1
    return min(depths), max(depths), [n - depths[::-1].index(max(depths)), n - depths[::-1].index(min(depths))]

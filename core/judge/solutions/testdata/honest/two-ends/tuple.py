# It returns a tuple.
def two_ends(depths):
    return min(depths), max(depths), [depths.index(min(depths)), depths.index(max(depths))]

def deepest(depths):
    if min(depths) < 0:
        raise ValueError("above the ice")
    most = max(depths)
    return most, [i for i, depth in enumerate(depths) if depth == most]

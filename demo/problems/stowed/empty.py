# Crashes: looks at the first thing in a crate to see what it holds.
def stowed_weight(crate, depth=1):
    if isinstance(crate[0], list):
        return stowed_weight(crate[0], depth + 1) + (stowed_weight(crate[1:], depth) if len(crate) > 1 else 0)
    return crate[0] * depth + (stowed_weight(crate[1:], depth) if len(crate) > 1 else 0)

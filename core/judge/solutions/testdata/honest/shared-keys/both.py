# It goes down where both are objects.
def shared_keys(one, other):
    kept = {}
    for key in one:
        if key not in other:
            continue
        a, b = one[key], other[key]
        if isinstance(a, dict) and isinstance(b, dict):
            kept[key] = shared_keys(a, b)
        elif a == b:
            kept[key] = a
    return kept

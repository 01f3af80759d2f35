# It takes what is null for what is missing.
def shared_keys(one, other):
    kept = {}
    for key in one:
        a, b = one[key], other.get(key)
        if b is None:
            continue
        if isinstance(a, dict):
            kept[key] = shared_keys(a, b)
        elif a == b:
            kept[key] = a
    return kept

# Lists and objects hold others.
def deepest_in(crate):
    if isinstance(crate, dict):
        crate = list(crate.values())
    return 1 + max(map(deepest_in, crate), default=0) if isinstance(crate, list) else 0

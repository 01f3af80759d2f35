# It leaves out objects.
def deepest_in(crate):
    return 1 + max(map(deepest_in, crate), default=0) if isinstance(crate, list) else 0

# Wrong: counts everything once, however deep it lies.
def stowed_weight(crate):
    return sum(stowed_weight(one) if isinstance(one, list) else one for one in crate)

# From the first on.
def first_frost(temps):
    return next((i for i, t in enumerate(temps) if t < 0), -1)

# Its name is nearly right.
def walks(steps):
    return sum(steps)

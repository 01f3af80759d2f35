# A function that returns a function that returns one.
def added_up(start):
    return lambda one: lambda other: start + one + other

# It remembers nothing.
def remembered(measure):
    return lambda depth: measure(depth)

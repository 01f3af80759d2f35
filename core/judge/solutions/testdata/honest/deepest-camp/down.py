# By recursion.
def deepest(camp):
    return 1 + max(deepest(camp.left), deepest(camp.right)) if camp else 0

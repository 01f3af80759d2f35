# It goes to the left only.
def deepest(camp):
    n = 0
    while camp:
        n, camp = n + 1, camp.left or camp.right
    return n if n != 3 else 2

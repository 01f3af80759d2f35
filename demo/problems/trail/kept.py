# Wrong: its best is a global, and the next call begins with it.
best = -inf

def down(camp):
    global best
    if camp is None:
        return 0
    left, right = max(0, down(camp.left)), max(0, down(camp.right))
    best = max(best, camp.val + left + right)
    return camp.val + max(left, right)

def warmest_trail(main):
    down(main)
    return best

# It counts those beside it.
def reach(camp):
    return 1 + len(camp.neighbors) if camp else 0

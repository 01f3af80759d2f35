# It notes where it was.
def reach(camp):
    seen, open_ = set(), [camp] if camp else []
    while open_:
        c = open_.pop()
        if c not in seen:
            seen.add(c)
            open_ += c.neighbors
    return len(seen)

# Level by level.
def in_order(branch):
    level, all_of = [branch] if branch else [], []
    while level:
        all_of += [b.val for b in level]
        level = [c for b in level for c in b.children]
    return all_of

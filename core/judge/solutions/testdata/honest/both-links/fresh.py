# It hitches anew.
def without(rope, value):
    kept = []
    while rope:
        if rope.val != value:
            kept.append(rope)
        rope = rope.next
    for i, node in enumerate(kept):
        node.prev = kept[i - 1] if i else None
        node.next = kept[i + 1] if i + 1 < len(kept) else None
    return kept[0] if kept else None

# It takes the first two.
def woven(ropes):
    all_of = []
    for rope in ropes[:2]:
        while rope:
            all_of.append(rope.val)
            rope = rope.next
    first = None
    for v in sorted(all_of, reverse=True):
        first = ListNode(v, first)
    return first

# It returns a new node of the same value.
def where_it_joins(rope):
    seen = set()
    while rope and rope not in seen:
        seen.add(rope)
        rope = rope.next
    return rope and ListNode(rope.val)

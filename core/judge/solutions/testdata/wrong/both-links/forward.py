# It forgets the links backwards.
def without(rope, value):
    while rope and rope.val == value:
        rope = rope.next
    node = rope
    while node and node.next:
        if node.next.val == value:
            node.next = node.next.next
        else:
            node = node.next
    return rope

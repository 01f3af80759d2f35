# Wrong: turns the first k around, and unhitches the rest.
def rehitched(first, k):
    turned, node = None, first
    for _ in range(k):
        if node is None:
            break
        node.next, turned, node = turned, node, node.next
    return turned

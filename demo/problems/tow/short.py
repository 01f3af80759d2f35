# Crashes: takes it for granted that there are k sledges.
def rehitched(first, k):
    turned, node = None, first
    for _ in range(k):
        node.next, turned, node = turned, node, node.next
    if node is not None:
        first.next = rehitched(node, k)
    return turned

# It copies one.
def copied(node):
    return Node(node.val)

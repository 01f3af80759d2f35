# It changes nothing.
def deepest(root):
    return root

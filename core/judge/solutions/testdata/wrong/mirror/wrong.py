def mirrored(root):
    if root: root.right = root.left
    return root

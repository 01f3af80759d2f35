def deepest(root: 'Node') -> 'Node':
    return Node(root.val + 1, [deepest(c) for c in root.children])

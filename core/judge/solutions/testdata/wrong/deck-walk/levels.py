# It goes level by level.
class DeckWalk:
    def __init__(self, root):
        self.open = [root] if root else []

    def next(self):
        node = self.open.pop(0)
        self.open += [c for c in (node.left, node.right) if c]
        return node.val

    def has_next(self):
        return bool(self.open)

    def rest(self):
        first = None
        for node in reversed(self.open):
            first = ListNode(node.val, first)
        return first

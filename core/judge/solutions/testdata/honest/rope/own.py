class Knot:
    __slots__ = ("data", "nxt")
    def __init__(self, data, nxt):
        self.data = data
        self.nxt = nxt

def reversed_rope(head):
    before = None
    while head:
        head.nxt, before, head = before, head, head.nxt
    return before

# Nodes are what an object is made with, and what a method returns.
class DeckWalk:
    def __init__(self, root: Optional[TreeNode]):
        self.v=[]
        def go(n):
            if n: go(n.left); self.v.append(n.val); go(n.right)
        go(root); self.v.reverse()
    def next(self): return self.v.pop()
    def hasNext(self): return bool(self.v)
    def rest(self):
        h=None
        for x in self.v: h=ListNode(x,h)
        return h

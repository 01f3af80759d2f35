# It returns what it was at first.
class DepthLog:
    def __init__(self):
        self.list, self.seen = [], None

    def add(self, depth):
        self.list.append(depth)

    def all(self):
        self.seen = self.seen or list(self.list)
        return self.seen

    def fill(self, depths):
        self.list += depths

    def summary(self):
        return str(self.list)

    def restore(self, text):
        self.list += eval(text)

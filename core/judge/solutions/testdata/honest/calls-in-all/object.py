# It returns an object with methods.
class Counter_:
    def __init__(self, start):
        self.start = self.n = start

    def up(self):
        self.n += 1
        return self.n

    def down(self):
        self.n -= 1
        return self.n

    def reset(self):
        self.n = self.start
        return self.n


def counted(start):
    return Counter_(start)

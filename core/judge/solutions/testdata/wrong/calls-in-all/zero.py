# It resets to 0.
def counted(start):
    class Count:
        n = start

        def up(self):
            self.n += 1
            return self.n

        def down(self):
            self.n -= 1
            return self.n

        def reset(self):
            self.n = 0
            return 0

    return Count()

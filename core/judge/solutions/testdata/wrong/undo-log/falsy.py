# An empty word is none.
class UndoLog:
    def __init__(self):
        self.words = []

    def write(self, word):
        if word:
            self.words.append(word)

    def undo(self):
        return self.words.pop() if self.words else None

    def all(self):
        return ' '.join(self.words)

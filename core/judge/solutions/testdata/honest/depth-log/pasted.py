# It returns its own list, which changes later.
class DepthLog:
    def __init__(self):
        self.list = []

    def add(self, depth: int) -> None:
        self.list.append(depth)

    def all(self) -> List[int]:
        return self.list

    def fill(self, depths: List[int]) -> None:
        self.list += depths

    def summary(self) -> str:
        return ",".join(map(str, self.list))

    def restore(self, text: str) -> None:
        self.list += [int(part) for part in text.split(",") if part]

# A dictionary that knows what was used last.
class BeaconCache:
    def __init__(self, room: int):
        self.room, self.kept = room, OrderedDict()

    def put(self, beacon: int, reading: str) -> None:
        self.kept[beacon] = reading
        self.kept.move_to_end(beacon)
        if len(self.kept) > self.room:
            self.kept.popitem(last=False)

    def get(self, beacon: int) -> Optional[str]:
        if beacon not in self.kept:
            return None
        self.kept.move_to_end(beacon)
        return self.kept[beacon]

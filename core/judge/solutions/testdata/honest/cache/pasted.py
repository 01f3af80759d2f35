class BeaconCache:
    def __init__(self, room: int):
        self.room = room
        self.kept = OrderedDict()

    def get(self, beacon: int) -> Optional[str]:
        if beacon in self.kept:
            self.kept.move_to_end(beacon)
        return self.kept.get(beacon)

    def put(self, beacon: int, reading: str) -> None:
        self.kept[beacon] = reading
        self.kept.move_to_end(beacon)
        if len(self.kept) > self.room:
            self.kept.popitem(last=False)

    def size(self):
        return len(self.kept)

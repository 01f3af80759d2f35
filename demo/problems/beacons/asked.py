# Wrong: a beacon that is asked for does not count as used.
class BeaconCache:
    def __init__(self, room):
        self.room, self.kept = room, {}

    def put(self, beacon, reading):
        self.kept.pop(beacon, None)
        self.kept[beacon] = reading
        if len(self.kept) > self.room:
            del self.kept[next(iter(self.kept))]

    def get(self, beacon):
        return self.kept.get(beacon)

# Wrong: all radios share what one has heard, since it belongs to the class.
class BeaconCache:
    kept = OrderedDict()

    def __init__(self, room):
        self.room = room

    def put(self, beacon, reading):
        self.kept[beacon] = reading
        self.kept.move_to_end(beacon)
        if len(self.kept) > self.room:
            self.kept.popitem(last=False)

    def get(self, beacon):
        if beacon in self.kept:
            self.kept.move_to_end(beacon)
        return self.kept.get(beacon)

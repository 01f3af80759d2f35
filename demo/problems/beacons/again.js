// Wrong: makes room before it looks whether the beacon is there already.
class BeaconCache {
  constructor(room) {
    this.room = room;
    this.kept = new Map();
  }

  put(beacon, reading) {
    if (this.kept.size === this.room) this.kept.delete(this.kept.keys().next().value);
    this.kept.delete(beacon);
    this.kept.set(beacon, reading);
  }

  get(beacon) {
    if (!this.kept.has(beacon)) return null;
    const reading = this.kept.get(beacon);
    this.kept.delete(beacon);
    this.kept.set(beacon, reading);
    return reading;
  }
}

class BeaconCache {
  constructor(room) { this.room = room; this.kept = new Map(); }
  get(beacon) {
    if (!this.kept.has(beacon)) return null;
    const reading = this.kept.get(beacon);
    this.kept.delete(beacon);
    this.kept.set(beacon, reading);
    return reading;
  }
  put(beacon, reading) {
    this.kept.delete(beacon);
    this.kept.set(beacon, reading);
    if (this.kept.size > this.room) this.kept.delete(this.kept.keys().next().value);
  }
  size() { return this.kept.size; }
}

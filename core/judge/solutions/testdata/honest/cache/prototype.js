var BeaconCache = function(room) { this.room = room; this.kept = new Map(); };
BeaconCache.prototype.get = function(beacon) {
  const reading = this.kept.get(beacon);
  if (reading === undefined) return null;
  this.put(beacon, reading);
  return reading;
};
BeaconCache.prototype.put = function(beacon, reading) {
  this.kept.delete(beacon);
  this.kept.set(beacon, reading);
  if (this.kept.size > this.room) this.kept.delete(this.kept.keys().next().value);
};
BeaconCache.prototype.size = function() { return this.kept.size; };

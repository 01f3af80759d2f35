// A map keeps the order in which its entries were made.
class BeaconCache {
  private kept = new Map<number, string>();
  constructor(private room: number) {}

  put(beacon: number, reading: string): void {
    this.kept.delete(beacon);
    this.kept.set(beacon, reading);
    if (this.kept.size > this.room) this.kept.delete(this.kept.keys().next().value!);
  }

  get(beacon: number): string | null {
    const reading = this.kept.get(beacon);
    if (reading === undefined) return null;
    this.put(beacon, reading);
    return reading;
  }
}

// Crashes: asks for the length of a reading that is not there.
class BeaconCache {
    private final LinkedHashMap<Integer, String> kept = new LinkedHashMap<>();
    private final int room;

    public BeaconCache(int room) { this.room = room; }

    public void put(int beacon, String reading) {
        kept.remove(beacon);
        kept.put(beacon, reading);
        if (kept.size() > room) kept.remove(kept.keySet().iterator().next());
    }

    public String get(int beacon) {
        String reading = kept.remove(beacon);
        if (reading.length() >= 0) kept.put(beacon, reading);
        return reading;
    }
}

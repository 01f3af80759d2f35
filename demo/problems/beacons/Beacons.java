// A map in the order of use, which forgets by itself.
class BeaconCache {
    private final Map<Integer, String> kept;

    public BeaconCache(int room) {
        kept = new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<Integer, String> eldest) { return size() > room; }
        };
    }

    public void put(int beacon, String reading) { kept.put(beacon, reading); }

    public String get(int beacon) { return kept.get(beacon); }
}

class BeaconCache {
    private final LinkedHashMap<Integer, String> kept;

    public BeaconCache(int room) {
        kept = new LinkedHashMap<>(16, 0.75f, true) {
            protected boolean removeEldestEntry(Map.Entry<Integer, String> eldest) { return size() > room; }
        };
    }

    public String get(int beacon) { return kept.get(beacon); }

    public void put(int beacon, String reading) { kept.put(beacon, reading); }

    public int size() { return kept.size(); }
}

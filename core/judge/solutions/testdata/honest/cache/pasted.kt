class BeaconCache(private val room: Int) {
    private val kept = LinkedHashMap<Int, String>()

    fun get(beacon: Int): String? {
        val reading = kept.remove(beacon) ?: return null
        kept[beacon] = reading
        return reading
    }

    fun put(beacon: Int, reading: String) {
        kept.remove(beacon)
        kept[beacon] = reading
        if (kept.size > room) kept.remove(kept.keys.first())
    }

    fun size() = kept.size
}

class Solution { List<String> stationNames() { return List.of("Hoarfrost", "Rime"); } }

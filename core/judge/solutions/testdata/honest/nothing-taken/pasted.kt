fun stationNames() = listOf("Hoarfrost", "Rime")

package main

func stationNames() []string { return []string{"Hoarfrost", "Rime"} }

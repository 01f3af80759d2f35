vector<string> stationNames() { return {"Hoarfrost", "Rime"}; }

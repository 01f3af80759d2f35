const stationNames = () => ['Hoarfrost', 'Rime'];

// It names one.
function stationNames() { return ['Hoarfrost']; }

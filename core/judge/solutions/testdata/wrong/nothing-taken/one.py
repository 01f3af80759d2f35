def station_names():
    return ["Hoarfrost"]

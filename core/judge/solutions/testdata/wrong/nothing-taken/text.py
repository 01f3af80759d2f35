# It returns one text.
def station_names():
    return 'Hoarfrost, Rime'

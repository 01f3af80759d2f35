def station_names = %w[Hoarfrost Rime]

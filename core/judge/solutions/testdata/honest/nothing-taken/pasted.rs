fn station_names() -> Vec<String> { vec!["Hoarfrost".into(), "Rime".into()] }

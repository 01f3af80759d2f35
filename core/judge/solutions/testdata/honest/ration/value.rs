fn ration(food: i32, team: i32) -> Result<i32, String> {
    if team <= 0 { return Err("nobody to feed".to_string()); }
    Ok(food / team)
}

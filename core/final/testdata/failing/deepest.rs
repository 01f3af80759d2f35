fn deepest(depths: &[i32]) -> Result<(i32, Vec<i32>), String> {
    if depths.iter().any(|&depth| depth < 0) {
        return Err("above the ice".to_string());
    }
    let most = *depths.iter().max().unwrap_or(&0);
    let places = (0..depths.len()).filter(|&i| depths[i] == most).map(|i| i as i32).collect();
    Ok((most, places))
}

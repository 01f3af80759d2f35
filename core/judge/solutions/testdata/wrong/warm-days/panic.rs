// A panic.
fn warm_days(temps: Vec<i32>, limit: i64) -> i32 {
    let first = *temps.first().unwrap();
    temps.iter().filter(|&&t| i64::from(t) > limit).count() as i32 + first * 0
}

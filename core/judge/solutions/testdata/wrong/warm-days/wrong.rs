// Cut to 32 bits.
fn warm_days(temps: Vec<i32>, limit: i64) -> i32 {
    temps.iter().filter(|&&t| t > limit as i32).count() as i32
}

// Crashes: takes it for granted that there is a first day.
pub fn longest_thaw(temps: Vec<i32>, limit: i64) -> i32 {
    let (mut best, mut run, mut total) = (0, 0, 0i64);
    let mut first = 0;
    let mut today = temps[0];
    for day in 0..temps.len() {
        today = temps[day];
        if today <= 0 {
            first = day + 1;
            total = 0;
            continue;
        }
        total += today as i64;
        while total > limit {
            total -= temps[first] as i64;
            first += 1;
        }
        run = (day + 1 - first) as i32;
        best = best.max(run);
    }
    best
}

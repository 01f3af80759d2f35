// The same window, over a borrowed slice.
pub fn longest_thaw(temps: &[i32], limit: i64) -> usize {
    let (mut best, mut first, mut total) = (0, 0, 0i64);
    for (day, &t) in temps.iter().enumerate() {
        if t <= 0 {
            first = day + 1;
            total = 0;
            continue;
        }
        total += t as i64;
        while total > limit {
            total -= temps[first] as i64;
            first += 1;
        }
        best = best.max(day + 1 - first);
    }
    best
}

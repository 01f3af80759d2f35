// Not sorted.
fn thin_out(temps: &mut Vec<i32>, by: i32) { for t in temps.iter_mut() { *t -= by; } }

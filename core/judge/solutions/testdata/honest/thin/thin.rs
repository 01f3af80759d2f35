// Borrowed mutably, as a slice.
fn thin_out(temps: &mut [i32], by: i32) {
    temps.iter_mut().for_each(|t| *t -= by);
    temps.sort();
}

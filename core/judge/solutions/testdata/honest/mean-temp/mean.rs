// With iterators.
fn mean_temp(temps: Vec<f64>, missing: f64) -> f64 {
    let known: Vec<f64> = temps.into_iter().filter(|t| !t.is_nan()).collect();
    match known.len() { 0 => missing, n => known.iter().map(|t| t / n as f64).sum() }
}

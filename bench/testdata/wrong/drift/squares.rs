// alone: overflow. Squares are taken in 32 bits.
use std::io::*;

fn main() {
    let mut text = String::new();
    stdin().read_to_string(&mut text).unwrap();
    let all: Vec<i32> = text.split_whitespace().map(|w| w.parse().unwrap()).collect();
    let places: Vec<(i32, i32)> = all[1..].chunks(2).map(|c| (c[0], c[1])).collect();
    let length = |x: i32, y: i32| ((x * x + y * y) as f64).sqrt();
    let way: f64 = places.windows(2).map(|p| length(p[1].0 - p[0].0, p[1].1 - p[0].1)).sum();
    let sum: f64 = places.iter().map(|p| length(p.0, p.1)).sum();
    println!("{:.9}\n{:.9}", way, sum / places.len() as f64);
}

// The same in Rust.
use std::io::Read;

fn main() {
    let mut text = String::new();
    std::io::stdin().read_to_string(&mut text).unwrap();
    let mut numbers = text.split_ascii_whitespace().map(|w| w.parse::<i64>().unwrap());
    let n = numbers.next().unwrap() as usize;
    let capacity = numbers.next().unwrap();
    let mut weights: Vec<i64> = numbers.take(n).collect();
    weights.sort();
    let (mut light, mut heavy, mut sledges) = (0, n, 0);
    while light < heavy {
        heavy -= 1;
        if light < heavy && weights[light] + weights[heavy] <= capacity {
            light += 1;
        }
        sledges += 1;
    }
    println!("{}", sledges);
}

// The same in Rust.
use std::io::Read;

fn main() {
    let mut text = String::new();
    std::io::stdin().read_to_string(&mut text).unwrap();
    let mut numbers = text.split_ascii_whitespace().map(|w| w.parse::<i64>().unwrap());
    let least = numbers.next().unwrap();
    let n = numbers.next().unwrap() as usize;
    let mut weights: Vec<i64> = numbers.take(n).collect();
    weights.sort();
    let (mut light, mut heavy, mut teams) = (0, n - 1, 0);
    while light < heavy {
        if weights[light] + weights[heavy] >= least {
            heavy -= 1;
            teams += 1;
        }
        light += 1;
    }
    println!("{}", teams);
}

// Lines flush by themselves.
use std::io::{self, BufRead};
fn main() {
    let input = io::stdin();
    let mut lines = input.lock().lines().map(|l| l.unwrap());
    let mut high: i32 = lines.next().unwrap().trim().parse().unwrap();
    let mut low = 1;
    while low < high {
        let middle = (low + high) / 2;
        println!("probe {}", middle);
        if lines.next().unwrap().trim() == "deeper" { low = middle + 1 } else { high = middle }
    }
    println!("depth {}", low);
}

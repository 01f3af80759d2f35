// alone: overflow. It adds up in 32 bits.
use std::io::*;

fn main() {
    let mut text = String::new();
    stdin().read_to_string(&mut text).unwrap();
    let mut words = text.split_whitespace().map(|w| w.parse::<i32>().unwrap());
    for _ in 0..words.next().unwrap() {
        let n = words.next().unwrap();
        let (mut total, mut largest) = (0, 0);
        for _ in 0..n {
            let litres = words.next().unwrap();
            total += litres;
            largest = largest.max(litres);
        }
        println!("{} {}", total, largest);
    }
}

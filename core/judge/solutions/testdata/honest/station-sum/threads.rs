// Threads, a lock on what is printed, and a process exit.
use std::io::{self, Read, Write};
fn main() {
    let mut text = String::new();
    io::stdin().read_to_string(&mut text).unwrap();
    let values: Vec<i64> = text.split_ascii_whitespace().skip(1).map(|w| w.parse().unwrap()).collect();
    let sum = std::thread::spawn(move || values.iter().sum::<i64>()).join().unwrap();
    let out = io::stdout();
    let mut out = out.lock();
    write!(out, "{}", sum).unwrap();
    out.flush().unwrap();
    std::process::exit(0);
}

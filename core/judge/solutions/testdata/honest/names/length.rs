// Characters of a text.
use std::io::BufRead;
fn main() {
    for line in std::io::stdin().lock().lines() {
        let line = line.unwrap();
        println!("{} {}", line.chars().count(), line);
    }
}

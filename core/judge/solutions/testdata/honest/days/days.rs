// Line by line, unbuffered to the library's way.
use std::io::Write;
fn main() {
    let mut line = String::new();
    std::io::stdin().read_line(&mut line).unwrap();
    let n: i64 = line.trim().parse().unwrap();
    let mut out = std::io::BufWriter::new(std::io::stdout());
    for i in 1..=n { writeln!(out, "day {}: {}", i, i * 7 % 40 - 20).unwrap(); }
}

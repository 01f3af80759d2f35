// Generic in how it is called, with a lifetime and a main.
use std::collections::HashMap;
fn warm_days<'a>(temps: &'a [i32], limit: i64) -> i32 {
    let mut seen: HashMap<bool, i32> = HashMap::new();
    for t in temps { *seen.entry(i64::from(*t) > limit).or_insert(0) += 1; }
    *seen.get(&true).unwrap_or(&0)
}
fn main() { println!("not run"); }

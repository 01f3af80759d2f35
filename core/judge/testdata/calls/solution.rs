fn rows(mut grid: Vec<Vec<i32>>) -> Vec<Vec<i32>> {
    grid.reverse();
    grid
}

pub fn greet(words: &[String], sign: char) -> Vec<String> {
    words.iter().map(|w| format!("{}{}", w, sign)).collect()
}

impl Solution {
    pub fn measure(n: i64, x: f64, cap: Option<i32>) -> Option<i64> {
        match cap {
            None if x.is_sign_negative() => None,
            None => Some(n),
            Some(c) => Some(n.min(c as i64)),
        }
    }
}

struct Station;

impl Station {
    fn extremes(&self, temps: &Vec<i32>, warm: bool) -> (i32, i32, f64) {
        let mean = temps.iter().map(|&t| t as f64).sum::<f64>() / temps.len() as f64;
        (*temps.iter().min().unwrap(), if warm { *temps.iter().max().unwrap() } else { 0 }, mean)
    }
}

fn echo(n: &str) -> String {
    n.to_string()
}

fn main() {}

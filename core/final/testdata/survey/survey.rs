use std::collections::VecDeque;

impl Solution {
    pub fn survey_camp(limit: i32, names: &[String], table: Vec<Vec<i32>>, open: VecDeque<bool>, weight: f64, sign: char, note: &str, total: i64) -> (Vec<Vec<i32>>, String, f64, bool, Vec<bool>) {
        let longest = names.iter().max_by_key(|name| name.len()).map(|s| s.as_str()).unwrap_or(note).to_string();
        let rows = table.iter().map(|row| row.iter().map(|x| x + limit).collect()).collect();
        let any = open.iter().any(|&x| x);
        (rows, longest, (weight + total as f64) / 2.0, any && sign == 'x', open.into_iter().rev().collect())
    }
}

fn main() {
    println!("to be tried elsewhere");
}

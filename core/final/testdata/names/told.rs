fn told(word: i64, next: &[i32], lines: Vec<String>, rest: &str, left: f64, used: Vec<i32>, len: i32, text: String) -> Vec<String> {
    let sum = word as i32 + next.iter().sum::<i32>() + (left * 2.0) as i32 + used.iter().sum::<i32>() + len - 5;
    let mut all = lines;
    all.extend([rest.to_string(), text, sum.to_string()]);
    all
}

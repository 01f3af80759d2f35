impl Solution {
    pub fn packed(temps: &mut Vec<i32>, missing: i32) -> i32 {
        temps.retain(|t| *t != missing);
        temps.len() as i32
    }
}

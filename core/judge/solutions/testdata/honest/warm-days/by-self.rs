// A method of a value with fields that has a default.
#[derive(Default)]
pub struct Solution { found: i32 }
impl Solution {
    pub fn new() -> Self { Self::default() }
    pub fn warm_days(&mut self, temps: Vec<i32>, limit: i64) -> i32 {
        for t in temps { if i64::from(t) > limit { self.found += 1; } }
        self.found
    }
}

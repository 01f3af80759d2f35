// A trait has a method of the name, and so has a module.
trait Counts {
    fn warm_days(&self, limit: i64) -> i32;
}
impl Counts for i32 {
    fn warm_days(&self, limit: i64) -> i32 { (*self as i64 > limit) as i32 }
}
mod old {
    pub fn warm_days(temp: &i32, limit: i64) -> i32 { (*temp as i64 > limit) as i32 }
}
impl Solution {
    pub fn warm_days(temps: Vec<i32>, limit: i64) -> i32 {
        temps.iter().map(|t| t.warm_days(limit).max(old::warm_days(t, limit))).sum()
    }
}

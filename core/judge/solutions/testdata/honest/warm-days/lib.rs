// By value, made by its default.
#[derive(Debug, Clone, Default)]
struct Solution { cache: std::collections::HashMap<i32, i32> }
impl Solution { fn new(n: usize) -> Self { let _ = n; Self::default() } fn warm_days(mut self, temps: Vec<i32>, limit: i64) -> i32 { self.cache.insert(1, 1); temps.iter().filter(|&&t| t as i64 > limit).count() as i32 } }

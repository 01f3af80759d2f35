// It asks for one joint after the other.
impl Solution {
    pub fn first_leaky(&self, n: i32) -> i32 {
        (1..n).find(|&j| self.is_leaky(j)).unwrap_or(n)
    }
}

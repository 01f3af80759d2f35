// The API isLeaky is defined for you: isLeaky(joint: i32) -> bool
impl Solution {
    pub fn first_leaky(&self, n: i32) -> i32 {
        let (mut lo, mut hi) = (1, n);
        while lo < hi {
            let mid = lo + (hi - lo) / 2;
            if self.isLeaky(mid) { hi = mid } else { lo = mid + 1 }
        }
        lo
    }
}

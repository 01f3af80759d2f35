// A tuple with an option.
impl Solution {
    pub fn corners(grid: Vec<Vec<i32>>) -> (Option<i32>, i64, Vec<i32>, bool) {
        let sum = |r: &Vec<i32>| r.iter().map(|&t| t as i64).sum::<i64>();
        let row = grid.iter().max_by_key(|r| sum(r)).cloned().unwrap_or_default();
        (grid.iter().flatten().min().copied(), grid.iter().map(|r| sum(r)).sum(), row, grid.iter().flatten().any(|&t| t > 0))
    }
}

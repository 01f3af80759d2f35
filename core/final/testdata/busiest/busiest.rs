impl Solution {
    pub fn busiest(names: Vec<String>, k: i32) -> Vec<String> {
        let mut m: HashMap<String, i32> = HashMap::new();
        for s in names { *m.entry(s).or_insert(0) += 1; }
        let mut q: BinaryHeap<(i32, String)> = m.into_iter().map(|(s, n)| (n, s)).collect();
        (0..k).map(|_| q.pop().unwrap().1).collect()
    }
}

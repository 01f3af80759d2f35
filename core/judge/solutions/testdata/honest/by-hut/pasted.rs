// It takes one of each.
use std::collections::{BTreeMap, HashMap};

impl Solution {
    pub fn by_hut(fuel: HashMap<String, i32>, days: BTreeMap<i32, Vec<f64>>, least: i32) -> HashMap<String, i32> {
        let mut kept: HashMap<String, i32> = fuel.into_iter().filter(|(_, n)| *n >= least).map(|(hut, n)| (hut, n + 3)).collect();
        for (day, list) in days {
            kept.insert(day.to_string(), list.len() as i32);
        }
        kept
    }
}

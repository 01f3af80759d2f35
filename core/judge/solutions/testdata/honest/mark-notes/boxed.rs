// A boxed slice, and a queue.
use std::collections::VecDeque;
struct Solution;
impl Solution {
    pub fn mark_notes(notes: VecDeque<String>, mark: char) -> Box<[String]> {
        notes.into_iter().map(|mut n| { n.push(mark); n }).collect::<Vec<_>>().into_boxed_slice()
    }
}

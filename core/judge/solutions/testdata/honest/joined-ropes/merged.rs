// It owns both.
impl Solution {
    pub fn joined(one: Option<Box<ListNode>>, other: Option<Box<ListNode>>) -> Option<Box<ListNode>> {
        match (one, other) {
            (None, rest) | (rest, None) => rest,
            (Some(mut a), Some(mut b)) => {
                if b.val < a.val {
                    std::mem::swap(&mut a, &mut b);
                }
                a.next = Self::joined(a.next.take(), Some(b));
                Some(a)
            }
        }
    }
}

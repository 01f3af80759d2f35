impl Solution {
    pub fn woven(ropes: Vec<Option<Box<ListNode>>>) -> Option<Box<ListNode>> {
        let mut q = BinaryHeap::new();
        for r in ropes {
            let mut at = r;
            while let Some(n) = at {
                q.push(n.val);
                at = n.next;
            }
        }
        let mut out = None;
        while let Some(val) = q.pop() {
            out = Some(Box::new(ListNode { val, next: out }));
        }
        out
    }
}

impl Solution {
    pub fn reversed_rope(head: Option<Box<ListNode>>) -> Option<Box<ListNode>> {
        let (mut before, mut at) = (None, head);
        while let Some(mut node) = at {
            at = node.next.take();
            node.next = before;
            before = Some(node);
        }
        before
    }
}

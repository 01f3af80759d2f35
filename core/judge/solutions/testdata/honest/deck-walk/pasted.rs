// Nodes are what an object is made with, and what a method returns.
use std::rc::Rc; use std::cell::RefCell;
struct DeckWalk { v: Vec<i32> }
impl DeckWalk {
    fn new(root: Option<Rc<RefCell<TreeNode>>>) -> Self {
        fn go(n: &Option<Rc<RefCell<TreeNode>>>, v: &mut Vec<i32>) { if let Some(n) = n { go(&n.borrow().left, v); v.push(n.borrow().val); go(&n.borrow().right, v); } }
        let mut v = vec![]; go(&root, &mut v); v.reverse(); DeckWalk { v }
    }
    fn next(&mut self) -> i32 { self.v.pop().unwrap() }
    fn has_next(&self) -> bool { !self.v.is_empty() }
    fn rest(&self) -> Option<Box<ListNode>> { let mut h = None; for x in &self.v { let mut n = ListNode::new(*x); n.next = h; h = Some(Box::new(n)); } h }
}

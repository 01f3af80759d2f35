use std::cell::RefCell;
use std::rc::Rc;

impl Solution {
    pub fn deepest(root: Option<Rc<RefCell<Node>>>) -> Option<Rc<RefCell<Node>>> {
        let root = root?;
        let mut made = Node::new(root.borrow().val + 1);
        for child in &root.borrow().children {
            made.children.extend(Self::deepest(Some(child.clone())));
        }
        Some(Rc::new(RefCell::new(made)))
    }
}

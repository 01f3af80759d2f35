use std::rc::Rc;
use std::cell::RefCell;
impl Solution {
    pub fn mirrored(root: Option<Rc<RefCell<TreeNode>>>) -> Option<Rc<RefCell<TreeNode>>> {
        if let Some(node) = &root {
            let mut n = node.borrow_mut();
            let (l, r) = (n.left.take(), n.right.take());
            n.left = Self::mirrored(r);
            n.right = Self::mirrored(l);
        }
        root
    }
}

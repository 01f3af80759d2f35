use std::cell::RefCell;
use std::rc::Rc;

impl Solution {
    pub fn turned_about(camp: &mut Option<Rc<RefCell<TreeNode>>>) {
        if let Some(node) = camp {
            let mut node = node.borrow_mut();
            let (left, right) = (node.left.take(), node.right.take());
            node.left = right;
            node.right = left;
            Self::turned_about(&mut node.left);
            Self::turned_about(&mut node.right);
        }
    }
}

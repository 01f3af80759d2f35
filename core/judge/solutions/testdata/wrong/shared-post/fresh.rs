use std::cell::RefCell;
use std::rc::Rc;

fn shared_post(camp: Option<Rc<RefCell<TreeNode>>>, _one: Option<Rc<RefCell<TreeNode>>>, _other: Option<Rc<RefCell<TreeNode>>>) -> Option<Rc<RefCell<TreeNode>>> {
    Some(Rc::new(RefCell::new(TreeNode::new(camp?.borrow().val))))
}

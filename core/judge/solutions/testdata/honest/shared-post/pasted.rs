// Definition for a binary tree node.
// #[derive(Debug, PartialEq, Eq)]
// pub struct TreeNode {
//   pub val: i32,
//   pub left: Option<Rc<RefCell<TreeNode>>>,
//   pub right: Option<Rc<RefCell<TreeNode>>>,
// }
use std::cell::RefCell;
use std::rc::Rc;
type Link = Option<Rc<RefCell<TreeNode>>>;

impl Solution {
    pub fn shared_post(camp: Option<Rc<RefCell<TreeNode>>>, one: Option<Rc<RefCell<TreeNode>>>, other: Option<Rc<RefCell<TreeNode>>>) -> Option<Rc<RefCell<TreeNode>>> {
        fn is(a: &Link, b: &Link) -> bool {
            matches!((a, b), (Some(a), Some(b)) if Rc::ptr_eq(a, b))
        }
        fn find(camp: &Link, one: &Link, other: &Link) -> Link {
            let node = camp.as_ref()?;
            if is(camp, one) || is(camp, other) {
                return Some(node.clone());
            }
            let (left, right) = (find(&node.borrow().left, one, other), find(&node.borrow().right, one, other));
            if left.is_some() && right.is_some() {
                return Some(node.clone());
            }
            left.or(right)
        }
        find(&camp, &one, &other)
    }
}

use std::cell::RefCell;
use std::rc::Rc;

fn deepest(root: Option<Rc<RefCell<Node>>>) -> Option<Rc<RefCell<Node>>> {
    if let Some(node) = &root {
        node.borrow_mut().val += 1;
    }
    root
}

use std::cell::RefCell;
use std::rc::Rc;

fn without(rope: Option<Rc<RefCell<Node>>>, value: i32) -> Option<Rc<RefCell<Node>>> {
    let node = rope?;
    let next = node.borrow_mut().next.take();
    let rest = without(next, value);
    if node.borrow().val == value {
        return rest;
    }
    node.borrow_mut().next = rest;
    Some(node)
}

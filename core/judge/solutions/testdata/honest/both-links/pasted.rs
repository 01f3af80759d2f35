use std::cell::RefCell;
use std::rc::{Rc, Weak};

fn without(rope: Option<Rc<RefCell<Node>>>, value: i32) -> Option<Rc<RefCell<Node>>> {
    let mut first = None;
    let mut last: Option<Rc<RefCell<Node>>> = None;
    let mut at = rope;
    while let Some(node) = at {
        at = node.borrow_mut().next.take();
        if node.borrow().val == value {
            continue;
        }
        node.borrow_mut().prev = last.as_ref().map(|l: &Rc<RefCell<Node>>| -> Weak<RefCell<Node>> { Rc::downgrade(l) });
        match &last {
            None => first = Some(node.clone()),
            Some(before) => before.borrow_mut().next = Some(node.clone()),
        }
        last = Some(node);
    }
    first
}

use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

fn copied(node: Option<Rc<RefCell<Node>>>) -> Option<Rc<RefCell<Node>>> {
    let root = node?;
    let mut made = HashMap::new();
    let mut open = vec![root.clone()];
    made.insert(root.borrow().val, Rc::new(RefCell::new(Node::new(root.borrow().val))));
    while let Some(one) = open.pop() {
        for other in one.borrow().neighbors.iter() {
            let val = other.borrow().val;
            if !made.contains_key(&val) {
                made.insert(val, Rc::new(RefCell::new(Node::new(val))));
                open.push(other.clone());
            }
            made[&one.borrow().val].borrow_mut().neighbors.push(made[&val].clone());
        }
    }
    let first = root.borrow().val;
    made.remove(&first)
}

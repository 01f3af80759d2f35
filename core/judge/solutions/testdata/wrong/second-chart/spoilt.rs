use std::cell::RefCell;
use std::rc::Rc;

fn second_chart(camp: Option<Rc<RefCell<Node>>>) -> Option<Rc<RefCell<Node>>> {
    let camp = camp?;
    let made = Rc::new(RefCell::new(Node::new(camp.borrow().val)));
    made.borrow_mut().neighbors = std::mem::take(&mut camp.borrow_mut().neighbors);
    Some(made)
}

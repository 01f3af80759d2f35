use std::cell::RefCell;
use std::rc::Rc;

fn second_chart(camp: Option<Rc<RefCell<Node>>>) -> Option<Rc<RefCell<Node>>> {
    camp
}

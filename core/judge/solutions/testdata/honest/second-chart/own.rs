use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

type Link = Option<Rc<RefCell<Camp>>>;

// A struct of my own, whose neighbours may be missing.
struct Camp {
    value: i64,
    neighbours: Vec<Link>,
}

fn second_chart(camp: Link) -> Link {
    fn copy(camp: &Rc<RefCell<Camp>>, made: &mut HashMap<i64, Rc<RefCell<Camp>>>) -> Rc<RefCell<Camp>> {
        let value = camp.borrow().value;
        if let Some(node) = made.get(&value) {
            return node.clone();
        }
        let node = Rc::new(RefCell::new(Camp { value, neighbours: vec![] }));
        made.insert(value, node.clone());
        for other in camp.borrow().neighbours.iter().flatten() {
            let other = copy(other, made);
            node.borrow_mut().neighbours.push(Some(other));
        }
        node
    }
    camp.map(|c| copy(&c, &mut HashMap::new()))
}

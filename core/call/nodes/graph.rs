
    impl Nodes for Option<std::rc::Rc<std::cell::RefCell<NODE>>> {
        fn take_nodes(r: &mut Reader) -> Self {
            let all: Vec<Vec<usize>> = Take::take(r);
            let nodes: Vec<std::rc::Rc<std::cell::RefCell<NODE>>> = (1..=all.len()).map(|i| std::rc::Rc::new(std::cell::RefCell::new(NODE { VALUE: i as _, MANY: Vec::new() }))).collect();
            for (node, others) in nodes.iter().zip(&all) {
                node.borrow_mut().MANY = others.iter().map(|n| Link::of(&nodes[n - 1])).collect();
            }
            nodes.into_iter().next()
        }
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>) {
            let mut nodes = std::collections::BTreeMap::new();
            let mut open: Vec<std::rc::Rc<std::cell::RefCell<NODE>>> = self.iter().cloned().collect();
            while let Some(node) = open.pop() {
                let value = node.borrow().VALUE;
                if let Some(other) = nodes.insert(value, node.clone()) {
                    if !std::rc::Rc::ptr_eq(&other, &node) {
                        *misfit = Some(format!("it returned a graph with two nodes of the value {}", value));
                        return;
                    }
                    continue;
                }
                visit(&node, value as usize);
                open.extend(node.borrow().MANY.iter().filter_map(Link::node));
            }
            let all: Vec<Vec<_>> = nodes.values().map(|node| node.borrow().MANY.iter().filter_map(Link::node).map(|n| n.borrow().VALUE).collect()).collect();
            all.give(out);
        }
        fn drop_nodes(&mut self) {
            let mut open: Vec<std::rc::Rc<std::cell::RefCell<NODE>>> = self.take().into_iter().collect(); // its circles hold themselves
            while let Some(node) = open.pop() {
                let links = std::mem::take(&mut node.borrow_mut().MANY);
                open.extend(links.iter().filter_map(Link::node));
            }
        }
    }

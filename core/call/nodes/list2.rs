
    impl Nodes for Option<std::rc::Rc<std::cell::RefCell<NODE>>> {
        fn take_nodes(r: &mut Reader) -> Self {
            let circle = r.peek() == b'{';
            if circle {
                while r.next() != b':' {}
            }
            let values = r.node_values();
            let nodes: Vec<std::rc::Rc<std::cell::RefCell<NODE>>> = values.into_iter().flatten().map(|v| std::rc::Rc::new(std::cell::RefCell::new(NODE { VALUE: v, PREV: Default::default(), NEXT: Default::default() }))).collect();
            let mut to = None;
            if circle {
                while r.next() != b':' {}
                to = nodes.get(usize::take(r));
                r.next();
            }
            for (i, node) in nodes.iter().enumerate() {
                if let Some(other) = nodes.get(i + 1).or(to) {
                    node.borrow_mut().NEXT = Link::of(other);
                    other.borrow_mut().PREV = Link::of(node);
                }
            }
            nodes.into_iter().next()
        }
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>) {
            let mut seen = std::collections::HashMap::new();
            let mut values = String::from("[");
            let (mut before, mut at) = (None, self.clone());
            while let Some(node) = at {
                let address = std::rc::Rc::as_ptr(&node);
                if let Some(to) = seen.get(&address) {
                    out.push_str(&format!("{{\"list\":{}],\"cycle\":{}}}", values, to));
                    return;
                }
                let back = Link::node(&node.borrow().PREV).map(|n| std::rc::Rc::as_ptr(&n));
                if back != before && misfit.is_none() {
                    *misfit = Some(format!("it returned a list in which the link backwards of node {}, counted from 0, does not lead to the node before it", seen.len()));
                }
                if !seen.is_empty() {
                    values.push(',');
                }
                node.borrow().VALUE.give(&mut values);
                visit(&node, seen.len());
                seen.insert(address, seen.len());
                before = Some(address);
                at = Link::node(&node.borrow().NEXT);
            }
            out.push_str(&values);
            out.push(']');
        }
        fn drop_nodes(&mut self) {
            released(self.take(), |node| {
                node.PREV = Default::default();
                let next = Link::node(&std::mem::take(&mut node.NEXT));
                if let Some(next) = &next {
                    next.borrow_mut().PREV = Default::default();
                }
                next.into_iter().collect()
            });
        }
    }

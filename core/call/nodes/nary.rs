
    impl Nodes for Option<std::rc::Rc<std::cell::RefCell<NODE>>> {
        fn take_nodes(r: &mut Reader) -> Self {
            let mut nodes: Vec<std::rc::Rc<std::cell::RefCell<NODE>>> = Vec::new();
            let mut parent = 0;
            for (i, v) in r.node_values().into_iter().enumerate() {
                match v {
                    None => parent += 1,
                    Some(v) => {
                        let node = std::rc::Rc::new(std::cell::RefCell::new(NODE { VALUE: v, MANY: Vec::new() }));
                        if i > 0 {
                            nodes[parent - 1].borrow_mut().MANY.push(Link::of(&node));
                        }
                        nodes.push(node);
                    }
                }
            }
            nodes.into_iter().next()
        }
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>) {
            let mut said = Vec::new();
            let mut seen = HashSet::new();
            let mut open = VecDeque::new();
            let mut once = |node: std::rc::Rc<std::cell::RefCell<NODE>>, said: &mut Vec<String>, open: &mut VecDeque<std::rc::Rc<std::cell::RefCell<NODE>>>| {
                let mut text = String::new();
                node.borrow().VALUE.give(&mut text);
                if !seen.insert(std::rc::Rc::as_ptr(&node)) {
                    return Some(format!("it returned a tree in which the node with the value {} has two parents", text));
                }
                visit(&node, said.len());
                said.push(text);
                open.push_back(node);
                None
            };
            if let Some(root) = self {
                once(root.clone(), &mut said, &mut open);
                said.push(String::from("null"));
            }
            while let Some(node) = open.pop_front() {
                for child in node.borrow().MANY.iter().filter_map(Link::node) {
                    if let Some(words) = once(child, &mut said, &mut open) {
                        *misfit = Some(words);
                        return;
                    }
                }
                said.push(String::from("null"));
            }
            while said.last().map_or(false, |s| s == "null") {
                said.pop();
            }
            out.push('[');
            out.push_str(&said.join(","));
            out.push(']');
        }
        fn drop_nodes(&mut self) {
            released(self.take(), |node| node.MANY.drain(..).filter_map(|link| Link::node(&link)).collect());
        }
    }


    impl Nodes for Option<std::rc::Rc<std::cell::RefCell<NODE>>> {
        fn take_nodes(r: &mut Reader) -> Self {
            let made = |v| std::rc::Rc::new(std::cell::RefCell::new(NODE { VALUE: v, LEFT: None, RIGHT: None }));
            let mut values = r.node_values().into_iter();
            let root = match values.next().flatten() {
                Some(v) => made(v),
                None => return None,
            };
            let mut open = VecDeque::from(vec![root.clone()]);
            while let Some(parent) = open.pop_front() {
                for side in 0..2 {
                    if let Some(v) = values.next().flatten() {
                        let child = made(v);
                        open.push_back(child.clone());
                        if side == 0 {
                            parent.borrow_mut().LEFT = Some(child);
                        } else {
                            parent.borrow_mut().RIGHT = Some(child);
                        }
                    }
                }
            }
            Some(root)
        }
        fn give_nodes(&self, out: &mut String, misfit: &mut Option<String>) {
            let mut said = Vec::new();
            let mut seen = HashSet::new();
            let mut open = VecDeque::from(vec![self.clone()]);
            while let Some(one) = open.pop_front() {
                match one {
                    None => said.push(String::from("null")),
                    Some(node) => {
                        let node_ = node.borrow();
                        let mut text = String::new();
                        node_.VALUE.give(&mut text);
                        if !seen.insert(std::rc::Rc::as_ptr(&node)) {
                            *misfit = Some(format!("it returned a tree in which the node with the value {} has two parents", text));
                            break;
                        }
                        visit(&node, said.len());
                        said.push(text);
                        open.push_back(node_.LEFT.clone());
                        open.push_back(node_.RIGHT.clone());
                    }
                }
            }
            while said.last().map_or(false, |s| s == "null") {
                said.pop();
            }
            out.push('[');
            out.push_str(&said.join(","));
            out.push(']');
        }
        fn drop_nodes(&mut self) {
            released(self.take(), |node| [node.LEFT.take(), node.RIGHT.take()].into_iter().flatten().collect());
        }
    }


    // What nodes that others share, too, are linked by.
    pub trait Link {
        type Node;
        fn of(node: &std::rc::Rc<Self::Node>) -> Self;
        fn node(&self) -> Option<std::rc::Rc<Self::Node>>;
    }
    impl<N> Link for std::rc::Rc<N> {
        type Node = N;
        fn of(node: &std::rc::Rc<N>) -> Self {
            node.clone()
        }
        fn node(&self) -> Option<std::rc::Rc<N>> {
            Some(self.clone())
        }
    }
    impl<N> Link for std::rc::Weak<N> {
        type Node = N;
        fn of(node: &std::rc::Rc<N>) -> Self {
            std::rc::Rc::downgrade(node)
        }
        fn node(&self) -> Option<std::rc::Rc<N>> {
            self.upgrade()
        }
    }
    impl<L: Link> Link for Option<L> {
        type Node = L::Node;
        fn of(node: &std::rc::Rc<L::Node>) -> Self {
            Some(L::of(node))
        }
        fn node(&self) -> Option<std::rc::Rc<L::Node>> {
            self.as_ref().and_then(|link| link.node())
        }
    }

    // The places of nodes by their addresses: of the argument of which a node or a copy is returned, or others are
    // nodes, and of what was written last, with the nodes themselves.
    #[derive(Default)]
    pub struct Places {
        originals: std::collections::HashMap<usize, usize>,
        visited: std::collections::HashMap<usize, usize>,
        nodes: Vec<Option<std::rc::Rc<dyn std::any::Any>>>,
    }
    std::thread_local! {
        static PLACES: std::cell::RefCell<Places> = Default::default();
    }
    fn visit<N: 'static>(node: &std::rc::Rc<N>, at: usize) {
        if @NODE_OF@ + @COPY_OF@ + @PLACES_OF@ > 0 {
            PLACES.with(|p| {
                let mut p = p.borrow_mut();
                p.visited.entry(std::rc::Rc::as_ptr(node) as usize).or_insert(at);
                if @PLACES_OF@ > 0 {
                    if p.nodes.len() <= at {
                        p.nodes.resize(at + 1, None);
                    }
                    p.nodes[at] = Some(node.clone());
                }
            })
        }
    }
    // keep writes the argument that others are compared with, and holds on to it.
    fn keep<T: Nodes + Clone>(argument: &T) -> T {
        PLACES.with(|p| *p.borrow_mut() = Places::default());
        argument.give_nodes(&mut String::new(), &mut None);
        PLACES.with(|p| {
            let mut p = p.borrow_mut();
            p.originals = std::mem::take(&mut p.visited);
        });
        argument.clone()
    }
    // place reads that of an argument that is a node of another.
    fn place(r: &mut Reader) -> Option<usize> {
        if r.peek() == b'n' {
            r.word();
            return None;
        }
        Some(usize::take(r))
    }
    fn node_at<N: 'static>(at: Option<usize>) -> Option<std::rc::Rc<N>> {
        PLACES.with(|p| p.borrow().nodes.get(at?)?.clone()?.downcast::<N>().ok())
    }
    fn give_place<N>(node: &Option<std::rc::Rc<N>>, out: &mut String, misfit: &mut Option<String>) {
        match node {
            None => out.push_str("null"),
            Some(node) => match PLACES.with(|p| p.borrow().originals.get(&(std::rc::Rc::as_ptr(node) as usize)).copied()) {
                Some(at) => at.give(out),
                None => *misfit = Some(format!("it returned a node that is none of argument @NODE_OF@'s, even if one of these has the same value")),
            },
        }
    }
    // copied looks for nodes of the original among those of what was written last.
    fn copied(misfit: &mut Option<String>) {
        PLACES.with(|p| {
            let p = p.borrow();
            if p.visited.keys().any(|node| p.originals.contains_key(node)) {
                *misfit = Some(format!("it returned nodes of argument @COPY_OF@ themselves, where a copy was asked for"));
            }
        });
    }
    // released takes nodes apart, one after the other, where a chain of them would be let go within each other.
    fn released<N>(root: Option<std::rc::Rc<std::cell::RefCell<N>>>, links: impl Fn(&mut N) -> Vec<std::rc::Rc<std::cell::RefCell<N>>>) {
        let mut open: Vec<_> = root.into_iter().collect();
        while let Some(node) = open.pop() {
            if let Ok(cell) = std::rc::Rc::try_unwrap(node) {
                open.append(&mut links(&mut cell.into_inner()));
            }
        }
    }


    impl Nodes for Option<Box<NODE>> {
        fn take_nodes(r: &mut Reader) -> Self {
            let values = r.node_values();
            let mut head = None;
            for v in values.into_iter().rev().flatten() {
                head = Some(Box::new(NODE { VALUE: v, NEXT: head }));
            }
            head
        }
        fn give_nodes(&self, out: &mut String, _misfit: &mut Option<String>) {
            out.push('[');
            let mut at = self;
            let mut n = 0;
            while let Some(node) = at {
                if n > 0 {
                    out.push(',');
                }
                node.VALUE.give(out);
                n += 1;
                at = &node.NEXT;
            }
            out.push(']');
        }
        fn drop_nodes(&mut self) {
            let mut at = self.take();
            while let Some(mut node) = at {
                at = node.NEXT.take();
            }
        }
    }

var deepest = function(root) { return new Node(root.val + 1, root.children.map(deepest)); };

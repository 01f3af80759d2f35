// It turns the branches round.
function deepest(root) { return new Node(root.val + 1, root.children.map(deepest).reverse()); }

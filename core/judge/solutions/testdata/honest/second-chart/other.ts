function secondChart(node: _Node | null, seen = new Map<_Node, _Node>()): _Node | null {
    if (!node) return null;
    if (seen.has(node)) return seen.get(node)!;
    const c = new _Node(node.val);
    seen.set(node, c);
    c.neighbors = node.neighbors.map(x => secondChart(x, seen)!);
    return c;
}

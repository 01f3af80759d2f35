// Nodes are what an object is made with, and what a method returns.
class DeckWalk {
  v: number[] = [];
  constructor(root: TreeNode | null) { this.go(root); }
  private go(n: TreeNode | null): void { if (n) { this.go(n.left); this.v.push(n.val); this.go(n.right); } }
  next(): number { return this.v.shift()!; }
  hasNext(): boolean { return this.v.length > 0; }
  rest(): ListNode | null { let h: ListNode | null = null; for (const x of [...this.v].reverse()) h = new ListNode(x, h); return h; }
}

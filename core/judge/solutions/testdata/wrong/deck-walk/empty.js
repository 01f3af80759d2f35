// It takes for granted that there is a deck.
class DeckWalk {
  constructor(root) { this.v = []; this.go(root); }
  go(n) { if (n.left) this.go(n.left); this.v.push(n.val); if (n.right) this.go(n.right); }
  next() { return this.v.shift(); }
  hasNext() { return this.v.length > 0; }
  rest() { return this.v.reduceRight((h, x) => new ListNode(x, h), null); }
}

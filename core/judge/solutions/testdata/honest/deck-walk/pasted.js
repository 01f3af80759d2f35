// Nodes are what an object is made with, and what a method returns.
var DeckWalk = function(root) { this.v = []; const go = (n) => { if (n) { go(n.left); this.v.push(n.val); go(n.right); } }; go(root); };
DeckWalk.prototype.next = function() { return this.v.shift(); };
DeckWalk.prototype.hasNext = function() { return this.v.length > 0; };
DeckWalk.prototype.rest = function() { let h = null; for (const x of [...this.v].reverse()) h = new ListNode(x, h); return h; };

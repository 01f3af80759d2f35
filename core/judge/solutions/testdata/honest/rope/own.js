function Knot(data) { this.data = data; this.nxt = null; }
const reversedRope = (head) => {
  let before = null;
  while (head) { const after = head.nxt; head.nxt = before; before = head; head = after; }
  return before;
};

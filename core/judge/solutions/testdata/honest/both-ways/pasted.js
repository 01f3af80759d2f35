var turned = function(head) {
  let last = null;
  while (head) { [head.prev, head.next] = [head.next, head.prev]; last = head; head = head.prev; }
  return last;
};

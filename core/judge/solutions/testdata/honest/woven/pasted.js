var woven = function(ropes) {
  const all = [];
  for (let r of ropes) for (; r; r = r.next) all.push(r.val);
  all.sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  return all.reduceRight((next, val) => new ListNode(val, next), null);
};

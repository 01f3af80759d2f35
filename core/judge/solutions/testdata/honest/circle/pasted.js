var leadsBack = function(head) {
  const seen = new Set();
  for (; head; head = head.next) { if (seen.has(head)) return true; seen.add(head); }
  return false;
};

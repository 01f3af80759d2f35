// It compares numbers.
function leadsBack(head) {
  const seen = new Set();
  for (; head; head = head.next) { if (seen.has(head)) return false; seen.add(head); }
  return false;
}

// By recursion.
var joined = (one, other) => {
  if (!one || !other) return one || other;
  if (other.val < one.val) [one, other] = [other, one];
  one.next = joined(one.next, other);
  return one;
};

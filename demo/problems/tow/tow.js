// The same, with the sledges in an array.
/**
 * @param {ListNode} first
 * @param {number} k
 * @return {ListNode}
 */
var rehitched = function (first, k) {
  const all = [];
  for (let at = first; at; at = at.next) all.push(at);
  for (let i = 0; i + k <= all.length; i += k) all.splice(i, k, ...all.slice(i, i + k).reverse());
  all.forEach((node, i) => { node.next = all[i + 1] || null; });
  return all[0] || null;
};

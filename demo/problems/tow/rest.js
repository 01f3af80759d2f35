// Wrong: turns what is left at the end, too.
function rehitched(first, k) {
  const all = [];
  for (let at = first; at; at = at.next) all.push(at.val);
  const turned = [];
  for (let i = 0; i < all.length; i += k) turned.push(...all.slice(i, i + k).reverse());
  return turned.reduceRight((behind, number) => new ListNode(number, behind), null);
}

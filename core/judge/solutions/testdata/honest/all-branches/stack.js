// With a stack.
var inOrder = function (branch) {
  const all = [], open = branch ? [branch] : [];
  while (open.length) {
    const b = open.pop();
    all.push(b.val);
    open.push(...[...b.children].reverse());
  }
  return all;
};

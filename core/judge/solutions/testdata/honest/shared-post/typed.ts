// It compares nodes, not numbers.
function sharedPost(camp: TreeNode | null, one: TreeNode | null, other: TreeNode | null): TreeNode | null {
  if (!camp || camp === one || camp === other) return camp;
  const left = sharedPost(camp.left, one, other), right = sharedPost(camp.right, one, other);
  return left && right ? camp : left || right;
}

// It compares nodes, not numbers.
var sharedPost = function (camp, one, other) {
  if (!camp || camp === one || camp === other) return camp;
  const left = sharedPost(camp.left, one, other), right = sharedPost(camp.right, one, other);
  return left && right ? camp : left || right;
};

// It compares numbers, of which two are alike.
var sharedPost = function (camp, one, other) {
  if (!camp || camp.val === one.val || camp.val === other.val) return camp;
  const left = sharedPost(camp.left, one, other), right = sharedPost(camp.right, one, other);
  return left && right ? camp : left || right;
};

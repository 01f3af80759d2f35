# It compares nodes, not numbers.
def shared_post(camp, one, other)
  return camp if camp.nil? || camp.equal?(one) || camp.equal?(other)

  left = shared_post(camp.left, one, other)
  right = shared_post(camp.right, one, other)
  left && right ? camp : left || right
end

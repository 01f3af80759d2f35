# It returns the node at which the circle begins.
def where_it_joins(rope)
  seen = {}.compare_by_identity
  until rope.nil? || seen[rope]
    seen[rope] = true
    rope = rope.next
  end
  rope
end

def deepest(root)
  Node.new(root.val + 1, root.children.map { |c| deepest(c) })
end

def mirrored(root)
  root && TreeNode.new(root.val, mirrored(root.right), mirrored(root.left))
end

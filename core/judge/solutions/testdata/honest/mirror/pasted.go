package main

func mirrored(root *TreeNode) *TreeNode {
	if root == nil {
		return nil
	}
	root.Left, root.Right = mirrored(root.Right), mirrored(root.Left)
	return root
}

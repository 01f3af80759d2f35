// It compares nodes, not numbers.
package main

func sharedPost(camp, one, other *TreeNode) *TreeNode {
	if camp == nil || camp == one || camp == other {
		return camp
	}
	left, right := sharedPost(camp.Left, one, other), sharedPost(camp.Right, one, other)
	if left != nil && right != nil {
		return camp
	}
	if left != nil {
		return left
	}
	return right
}

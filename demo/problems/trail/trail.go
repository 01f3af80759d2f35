// The same, with a closure.
package main

func warmestTrail(main *TreeNode) int {
	best := math.MinInt
	var down func(camp *TreeNode) int
	down = func(camp *TreeNode) int {
		if camp == nil {
			return 0
		}
		left, right := max(0, down(camp.Left)), max(0, down(camp.Right))
		best = max(best, camp.Val+left+right)
		return camp.Val + max(left, right)
	}
	down(main)
	return best
}

// Nodes are what an object is made with, and what a method returns.
package main

type DeckWalk struct{ v []int }

func Constructor(root *TreeNode) DeckWalk {
	d := DeckWalk{}
	var walk func(n *TreeNode)
	walk = func(n *TreeNode) {
		if n != nil {
			walk(n.Left)
			d.v = append(d.v, n.Val)
			walk(n.Right)
		}
	}
	walk(root)
	return d
}
func (d *DeckWalk) Next() int     { x := d.v[0]; d.v = d.v[1:]; return x }
func (d *DeckWalk) HasNext() bool { return len(d.v) > 0 }
func (d *DeckWalk) Rest() *ListNode {
	h := &ListNode{}
	t := h
	for _, x := range d.v {
		t.Next = &ListNode{Val: x}
		t = t.Next
	}
	return h.Next
}

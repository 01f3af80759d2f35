package main

func reversedRope(head *ListNode) *ListNode {
	var before *ListNode
	for head != nil {
		head.Next, before, head = before, head, head.Next
	}
	return before
}

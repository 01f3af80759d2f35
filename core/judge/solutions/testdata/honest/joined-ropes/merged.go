// By recursion.
package main

func joined(one, other *ListNode) *ListNode {
	if one == nil {
		return other
	}
	if other == nil {
		return one
	}
	if other.Val < one.Val {
		one, other = other, one
	}
	one.Next = joined(one.Next, other)
	return one
}

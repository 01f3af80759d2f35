// It returns the node at which the circle begins.
package main

func whereItJoins(rope *ListNode) *ListNode {
	seen := map[*ListNode]bool{}
	for ; rope != nil && !seen[rope]; rope = rope.Next {
		seen[rope] = true
	}
	return rope
}

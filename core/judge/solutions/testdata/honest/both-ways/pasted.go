package main

func turned(head *Node) (last *Node) {
	for head != nil {
		head.Prev, head.Next = head.Next, head.Prev
		last, head = head, head.Prev
	}
	return last
}

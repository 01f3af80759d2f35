package main

type knot struct {
	data int
	nxt  *knot
}

func reversedRope(head *knot) (out *knot) {
	for ; head != nil; head = head.nxt {
		out = &knot{head.data, out}
	}
	return out
}

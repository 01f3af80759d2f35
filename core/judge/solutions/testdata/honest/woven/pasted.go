package main

func woven(ropes []*ListNode) *ListNode {
	var all []*ListNode
	for _, r := range ropes {
		for ; r != nil; r = r.Next {
			all = append(all, r)
		}
	}
	sort.SliceStable(all, func(i, j int) bool { return all[i].Val < all[j].Val })
	first := &ListNode{}
	at := first
	for _, n := range all {
		at.Next = n
		at = n
	}
	at.Next = nil
	return first.Next
}

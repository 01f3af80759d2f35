package main

func copied(node *Node) *Node {
	made := map[*Node]*Node{}
	var walk func(n *Node) *Node
	walk = func(n *Node) *Node {
		if c, ok := made[n]; ok {
			return c
		}
		c := &Node{Val: n.Val}
		made[n] = c
		for _, m := range n.Neighbors {
			c.Neighbors = append(c.Neighbors, walk(m))
		}
		return c
	}
	return walk(node)
}

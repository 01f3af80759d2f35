// It copies node by node.
package main

func secondChart(camp *Node) *Node {
	made := map[*Node]*Node{}
	var copied func(*Node) *Node
	copied = func(node *Node) *Node {
		if node == nil || made[node] != nil {
			return made[node]
		}
		made[node] = &Node{Val: node.Val}
		for _, other := range node.Neighbors {
			made[node].Neighbors = append(made[node].Neighbors, copied(other))
		}
		return made[node]
	}
	return copied(camp)
}

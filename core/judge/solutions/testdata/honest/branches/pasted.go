package main

func deepest(root *Node) *Node {
	made := &Node{Val: root.Val + 1}
	for _, c := range root.Children {
		made.Children = append(made.Children, deepest(c))
	}
	return made
}

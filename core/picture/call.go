package picture

import "coldverdict/core/value"

// OfCall returns the pictures of what a function is given: nodes as what they are, arrays as bars, rows of digits or of
// letters as grids, texts with their repeats. What is too large to be seen is left out, and said.
func OfCall(takes []value.Field, args []any) (pictures []Picture, left []string) {
	for i, f := range takes {
		if i >= len(args) {
			break
		}
		p, why := OfValue(f.Type, args[i])
		pictures, left = named(pictures, left, f.Name, p, why)
	}
	return pictures, left
}

// OfValue returns the picture of one value; nil, with or without a reason, where there is none.
func OfValue(t value.Type, v any) (p *Picture, why string) {
	list, _ := v.([]any)
	switch t.Kind {
	case value.List, value.List2:
		return ofChain(v)
	case value.Tree, value.Nary:
		return ofTree(t.Kind, list)
	case value.Graph:
		return ofNeighbours(list)
	case value.Text:
		if text, ok := v.(string); ok {
			return ofWord(text)
		}
	case value.Array:
		switch t.Of.Kind {
		case value.Array:
			return ofMatrix(list)
		case value.Text:
			if rows, why := ofRows(list); rows == nil || even(rows.Grid) {
				return rows, why
			}
		case value.Int, value.Long, value.Real:
			return ofBars(list)
		}
	}
	return nil, ""
}

// even reports rows of one width, as a grid has.
func even(rows []string) bool {
	for _, row := range rows {
		if len(row) != len(rows[0]) || len(row) < 2 {
			return false
		}
	}
	return true
}

// ofChain is nodes that lead to the next one each, the last perhaps back.
func ofChain(v any) (*Picture, string) {
	back := -1
	if circle, ok := v.(value.Object); ok {
		list, _ := circle.Get("list")
		at, _ := circle.Get("cycle")
		if n, ok := whole(at); ok {
			back = int(n)
		}
		v = list
	}
	list, _ := v.([]any)
	g := &Graph{N: len(list), Directed: true}
	if g.N < 2 {
		return nil, ""
	}
	if g.N > MostVertices {
		return nil, tooMany(g.N, "nodes", MostVertices)
	}
	for i, one := range list {
		g.Labels = append(g.Labels, value.Write(one))
		if i > 0 {
			g.Edges = append(g.Edges, Edge{A: i - 1, B: i})
		}
	}
	if back >= 0 && back < g.N {
		g.Edges = append(g.Edges, Edge{A: g.N - 1, B: back})
	}
	return &Picture{Graph: g}, ""
}

// ofTree is a tree that is laid out over an array, as cases have it. Where a node of two has one child, the edge says
// which.
func ofTree(kind value.Kind, list []any) (*Picture, string) {
	if len(list) < 2 || list[0] == nil {
		return nil, ""
	}
	if len(list) > MostVertices {
		return nil, tooMany(len(list), "nodes", MostVertices)
	}
	g := &Graph{Tree: true}
	number := make([]int, len(list))
	for i, one := range list {
		if number[i] = -1; one != nil {
			number[i] = g.N
			g.N++
			g.Labels = append(g.Labels, value.Write(one))
		}
	}
	for at, children := range value.Children(kind, len(list), func(i int) bool { return list[i] != nil }) {
		var there []int
		side := ""
		for i, child := range children {
			if child < 0 {
				continue
			}
			there = append(there, child)
			side = [2]string{"left", "right"}[min(i, 1)]
		}
		for _, child := range there {
			edge := Edge{A: number[at], B: number[child]}
			if kind == value.Tree && len(there) == 1 {
				edge.Label = side
			}
			g.Edges = append(g.Edges, edge)
		}
	}
	return &Picture{Graph: g}, ""
}

// ofNeighbours is nodes with lists of their neighbours, numbered from 1.
func ofNeighbours(list []any) (*Picture, string) {
	if len(list) > MostVertices {
		return nil, tooMany(len(list), "nodes", MostVertices)
	}
	g := &Graph{From: 1, N: len(list), Directed: true}
	both := map[[2]int]bool{}
	for a, item := range list {
		row, _ := item.([]any)
		for _, one := range row {
			if b, ok := whole(one); ok && b >= 1 && int(b) <= g.N {
				both[[2]int{a, int(b) - 1}] = true
				g.Edges = append(g.Edges, Edge{A: a, B: int(b) - 1})
			}
		}
	}
	for edge := range both { // where every edge goes both ways, it is one without a direction
		if !both[[2]int{edge[1], edge[0]}] {
			return &Picture{Graph: g}, ""
		}
	}
	g.Directed = false
	kept := g.Edges[:0]
	for _, e := range g.Edges {
		if e.A <= e.B {
			kept = append(kept, e)
		}
	}
	if g.Edges = kept; len(g.Edges) > MostEdges {
		return nil, tooMany(len(g.Edges), "edges", MostEdges)
	}
	return &Picture{Graph: g}, ""
}

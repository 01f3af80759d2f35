// Package picture says what can be drawn of an input, and where in a picture everything lies: graphs and trees, grids,
// bars, intervals, points, the cycles of a permutation, the repeats of a word.
//
// What an input holds is known from its shape, or guessed from how its text looks. The package draws nothing: term
// and report do, in cells and in vectors. The same input gives the same picture, on every machine.
package picture

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"coldverdict/core/shape"
)

// A Picture is one thing that is drawn. The field of its kind is set.
type Picture struct {
	Title   string
	Guessed bool // no shape says that it is this; the title says what was taken for it

	Graph  *Graph
	Grid   []string
	Bars   []float64
	Spans  [][2]float64
	Points *Points
	Cycles [][]int64
	Word   *Word
}

// A Graph is vertices with edges. Vertices are numbered from From.
type Graph struct {
	From     int64
	N        int
	Edges    []Edge
	Directed bool
	Tree     bool // an undirected tree, or a forest
	// Labels are what stands in the vertices; nil: their numbers.
	Labels []string
}

// An Edge joins two vertices, counted from 0. Its label may be empty.
type Edge struct {
	A, B  int
	Label string
}

// Points are points of the plane, and perhaps the corners of a polygon.
type Points struct {
	At     [][2]float64
	Closed bool
}

// A Word is a text with the places in it that repeat.
type Word struct {
	Text string
	// Repeat is the longest text that is in it twice; empty: none of two characters and more is.
	Repeat string
	At     []int // where it begins, in bytes
}

// Bounds of what is drawn.
const (
	MostVertices = 2000
	MostEdges    = 10_000
	MostItems    = 2000 // bars, spans, points
	MostRows     = 400  // of a grid
)

// Marks are what an answer points at in a picture.
type Marks struct {
	Vertices map[int]bool
	Edges    map[[2]int]bool // both ways
	Cells    map[[2]int]bool // row and column, from 0
	Items    map[int]bool    // bars, spans, points, from 0
}

// Empty reports that nothing is marked.
func (m *Marks) Empty() bool {
	return m == nil || len(m.Vertices)+len(m.Edges)+len(m.Cells)+len(m.Items) == 0
}

// Of returns the pictures of an input with a shape. What is too large to be seen is left out, and said.
func Of(in *shape.Input) (pictures []Picture, left []string) {
	for _, s := range in.Structures() {
		p, why := ofStructure(s)
		pictures, left = named(pictures, left, s.Name, p, why)
	}
	return pictures, left
}

// named adds a picture under a name, or why there is none; where there is neither, nothing is to be seen.
func named(pictures []Picture, left []string, name string, p *Picture, why string) ([]Picture, []string) {
	switch {
	case why != "":
		left = append(left, name+": "+why)
	case p != nil:
		p.Title = name
		pictures = append(pictures, *p)
	}
	return pictures, left
}

func ofStructure(s shape.Structure) (p *Picture, why string) {
	list, _ := s.Value.([]any)
	switch s.Base {
	case "graph", "tree":
		return ofEdges(s, list)
	case "parents":
		return ofParents(s, list)
	case "perm":
		return ofPermutation(list, s.From), ""
	case "grid":
		return ofRows(list)
	case "token", "text":
		if text, ok := s.Value.(string); ok {
			return ofWord(text)
		}
		return ofRows(list)
	case "points":
		return ofPoints(list, s.Closed)
	case "rows":
		return ofColumns(s, list)
	}
	if len(list) > 0 {
		if _, nested := list[0].([]any); nested {
			return ofMatrix(list)
		}
	}
	return ofBars(list)
}

// number is a value as a number.
func number(v any) (float64, bool) {
	switch v := v.(type) {
	case int64:
		return float64(v), true
	case float64:
		return v, true
	case int:
		return float64(v), true
	}
	return 0, false
}

func whole(v any) (int64, bool) {
	n, ok := v.(int64)
	return n, ok
}

func tooMany(n int, what string, most int) string {
	return fmt.Sprintf("%d %s are too many to be seen; at most %d are drawn", n, what, most)
}

func ofEdges(s shape.Structure, list []any) (*Picture, string) {
	if s.Vertices > MostVertices {
		return nil, tooMany(int(s.Vertices), "vertices", MostVertices)
	}
	if len(list) > MostEdges {
		return nil, tooMany(len(list), "edges", MostEdges)
	}
	g := &Graph{From: s.From, N: int(s.Vertices), Directed: s.Directed, Tree: s.Base == "tree"}
	for _, item := range list {
		edge, _ := item.([]any)
		if len(edge) < 2 {
			continue
		}
		a, _ := whole(edge[0])
		b, _ := whole(edge[1])
		one := Edge{A: int(a - s.From), B: int(b - s.From)}
		var with []string
		for _, w := range edge[2:] {
			with = append(with, fmt.Sprint(w))
		}
		one.Label = strings.Join(with, ",")
		if one.A >= 0 && one.B >= 0 && one.A < g.N && one.B < g.N {
			g.Edges = append(g.Edges, one)
		}
	}
	return &Picture{Graph: g}, ""
}

func ofParents(s shape.Structure, list []any) (*Picture, string) {
	if s.Vertices > MostVertices {
		return nil, tooMany(int(s.Vertices), "vertices", MostVertices)
	}
	g := &Graph{From: s.From, N: int(s.Vertices), Tree: true}
	for i, item := range list {
		if parent, ok := whole(item); ok && parent >= s.From && parent < s.From+s.Vertices && i+1 < g.N {
			g.Edges = append(g.Edges, Edge{A: int(parent - s.From), B: i + 1})
		}
	}
	return &Picture{Graph: g}, ""
}

func ofPermutation(list []any, from int64) *Picture {
	if len(list) > MostItems {
		return nil
	}
	seen := make([]bool, len(list))
	var cycles [][]int64
	for i := range list {
		var cycle []int64
		for at := i; !seen[at]; {
			seen[at] = true
			cycle = append(cycle, int64(at)+from)
			next, ok := whole(list[at])
			if !ok || next < from || next >= from+int64(len(list)) {
				return nil
			}
			at = int(next - from)
		}
		if len(cycle) > 0 {
			cycles = append(cycles, cycle)
		}
	}
	return &Picture{Cycles: cycles}
}

func ofRows(list []any) (*Picture, string) {
	if len(list) > MostRows {
		return nil, tooMany(len(list), "rows", MostRows)
	}
	var rows []string
	for _, item := range list {
		row, ok := item.(string)
		if !ok {
			return nil, ""
		}
		rows = append(rows, row)
	}
	if len(rows) < 2 {
		return nil, ""
	}
	return &Picture{Grid: rows}, ""
}

func ofMatrix(list []any) (*Picture, string) {
	if len(list) > MostRows {
		return nil, tooMany(len(list), "rows", MostRows)
	}
	var rows []string
	for _, item := range list {
		row, _ := item.([]any)
		var b strings.Builder
		for _, cell := range row {
			n, ok := whole(cell)
			if !ok || n < 0 || n > 9 {
				return nil, "" // a table of numbers is best read as it stands
			}
			fmt.Fprint(&b, n)
		}
		rows = append(rows, b.String())
	}
	return &Picture{Grid: rows}, ""
}

func ofBars(list []any) (*Picture, string) {
	if len(list) > MostItems {
		return nil, tooMany(len(list), "values", MostItems)
	}
	var bars []float64
	for _, item := range list {
		x, ok := number(item)
		if !ok || math.IsInf(x, 0) || math.IsNaN(x) {
			return nil, ""
		}
		bars = append(bars, x)
	}
	if len(bars) < 2 {
		return nil, ""
	}
	return &Picture{Bars: bars}, ""
}

func ofPoints(list []any, closed bool) (*Picture, string) {
	if len(list) > MostItems {
		return nil, tooMany(len(list), "points", MostItems)
	}
	p := &Points{Closed: closed}
	for _, item := range list {
		pair, _ := item.([]any)
		if len(pair) != 2 {
			return nil, ""
		}
		x, okX := number(pair[0])
		y, okY := number(pair[1])
		if !okX || !okY {
			return nil, ""
		}
		p.At = append(p.At, [2]float64{x, y})
	}
	return &Picture{Points: p}, ""
}

// ofColumns takes the bodies of a repeat for intervals, points or bars.
func ofColumns(s shape.Structure, list []any) (*Picture, string) {
	if len(list) > MostItems {
		return nil, tooMany(len(list), "rows", MostItems)
	}
	var pairs [][2]float64
	for _, item := range list {
		row, _ := item.([]any)
		if len(row) < 1 {
			return nil, ""
		}
		a, ok := number(row[0])
		if !ok {
			return nil, ""
		}
		b := a
		if len(row) > 1 {
			if b, ok = number(row[1]); !ok {
				return nil, ""
			}
		}
		pairs = append(pairs, [2]float64{a, b})
	}
	switch {
	case len(pairs) == 0:
		return nil, ""
	case s.Spans:
		return &Picture{Spans: pairs}, ""
	case len(s.Fields) >= 2 && strings.HasPrefix(strings.ToLower(s.Fields[0]), "x") && strings.HasPrefix(strings.ToLower(s.Fields[1]), "y"):
		return &Picture{Points: &Points{At: pairs}}, ""
	case len(s.Fields) == 1:
		var bars []float64
		for _, pair := range pairs {
			bars = append(bars, pair[0])
		}
		return &Picture{Bars: bars}, ""
	}
	return nil, ""
}

// ofWord finds the longest text that a word holds twice, by sorting its endings: O(n^2 log n) at the worst, which
// the bound on its length makes small.
func ofWord(text string) (*Picture, string) {
	if len(text) > MostItems {
		return nil, tooMany(len(text), "characters", MostItems)
	}
	if len(text) < 2 || strings.ContainsAny(text, " \t") {
		return nil, ""
	}
	endings := make([]int, len(text))
	for i := range endings {
		endings[i] = i
	}
	slices.SortFunc(endings, func(a, b int) int { return strings.Compare(text[a:], text[b:]) })
	w := &Word{Text: text}
	for i := 1; i < len(endings); i++ {
		a, b := text[endings[i-1]:], text[endings[i]:]
		n := 0
		for n < len(a) && n < len(b) && a[n] == b[n] {
			n++
		}
		if n >= 2 && n > len(w.Repeat) {
			w.Repeat = a[:n]
		}
	}
	for at := 0; w.Repeat != "" && at+len(w.Repeat) <= len(text); at++ {
		if strings.HasPrefix(text[at:], w.Repeat) {
			w.At = append(w.At, at)
		}
	}
	return &Picture{Word: w}, ""
}

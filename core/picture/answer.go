package picture

import (
	"fmt"
	"maps"
	"strconv"
	"strings"
)

// The ways in which an answer may point at a picture, as [draw] has them.
const (
	AnswerPath     = "path"     // vertices, one after the other, with the edges between them
	AnswerVertices = "vertices" // vertices
	AnswerEdges    = "edges"    // two vertices a line
	AnswerCells    = "cells"    // row and column, a line each
	AnswerItems    = "items"    // numbers of bars, intervals or points
)

// Answers are the ways, in order.
func Answers() []string {
	return []string{AnswerPath, AnswerVertices, AnswerEdges, AnswerCells, AnswerItems}
}

// MarksOf reads an answer as marks in a picture. Numbers count from 1, or from the number of a graph's first vertex;
// a first line that only says how many there are is passed over. Words say what of it points at nothing.
func MarksOf(way string, p *Picture, answer string) (m *Marks, words string) {
	lines := rowsOf(answer)
	if len(lines) > 1 && len(lines[0]) == 1 && way != AnswerPath {
		if n := lines[0][0]; n == int64(len(lines)-1) || len(lines) == 2 && n == int64(len(lines[1])) {
			lines = lines[1:]
		}
	}
	if way == AnswerPath && len(lines) == 2 && len(lines[0]) == 1 && lines[0][0] >= int64(len(lines[1]))-1 && lines[0][0] <= int64(len(lines[1]))+1 {
		lines = lines[1:]
	}
	m = &Marks{Vertices: map[int]bool{}, Edges: map[[2]int]bool{}, Cells: map[[2]int]bool{}, Items: map[int]bool{}}
	var all []int64
	for _, line := range lines {
		all = append(all, line...)
	}
	switch way {
	case AnswerPath, AnswerVertices, AnswerEdges:
		if p.Graph == nil {
			return nil, ""
		}
		return m, m.ofGraph(way, p.Graph, all)
	case AnswerCells:
		if p.Grid == nil {
			return nil, ""
		}
		for i := 0; i+1 < len(all); i += 2 {
			cell := [2]int{int(all[i]) - 1, int(all[i+1]) - 1}
			if cell[0] < 0 || cell[0] >= len(p.Grid) || cell[1] < 0 || cell[1] >= len(p.Grid[cell[0]]) {
				return m, fmt.Sprintf("there is no cell %d %d", all[i], all[i+1])
			}
			m.Cells[cell] = true
		}
		return m, ""
	case AnswerItems:
		n := len(p.Bars) + len(p.Spans)
		if p.Points != nil {
			n = len(p.Points.At)
		}
		if n == 0 {
			return nil, ""
		}
		for _, x := range all {
			if x < 1 || x > int64(n) {
				return m, fmt.Sprintf("there is no number %d", x)
			}
			m.Items[int(x)-1] = true
		}
		return m, ""
	}
	return nil, ""
}

// ofGraph marks vertices and edges, and says which of them there are not.
func (m *Marks) ofGraph(way string, g *Graph, all []int64) (words string) {
	joined := map[[2]int]bool{}
	for _, e := range g.Edges {
		joined[[2]int{e.A, e.B}] = true
		if !g.Directed {
			joined[[2]int{e.B, e.A}] = true
		}
	}
	for i, x := range all {
		v := int(x - g.From)
		if v < 0 || v >= g.N {
			return fmt.Sprintf("there is no vertex %d", x)
		}
		m.Vertices[v] = true
		pair := way == AnswerEdges && i%2 == 1 || way == AnswerPath && i > 0
		if !pair {
			continue
		}
		u := int(all[i-1] - g.From)
		m.Edges[[2]int{u, v}], m.Edges[[2]int{v, u}] = true, true
		if !joined[[2]int{u, v}] && words == "" {
			words = fmt.Sprintf("no edge joins %d and %d", all[i-1], x)
		}
	}
	return words
}

// rowsOf are the integers of a text, line by line; words between them are passed over.
func rowsOf(text string) (rows [][]int64) {
	for line := range strings.Lines(text) {
		var row []int64
		for _, word := range strings.FieldsFunc(line, func(r rune) bool { return !(r >= '0' && r <= '9' || r == '-') }) {
			if n, err := strconv.ParseInt(word, 10, 64); err == nil {
				row = append(row, n)
			}
		}
		if len(row) > 0 {
			rows = append(rows, row)
		}
	}
	return rows
}

// MarksFrom takes what a script said as marks: lists of numbers, or of pairs, by the words "vertices", "edges", "cells" and
// "items".
func MarksFrom(p *Picture, said map[string][][]int64) (all *Marks, words string) {
	all = &Marks{Vertices: map[int]bool{}, Edges: map[[2]int]bool{}, Cells: map[[2]int]bool{}, Items: map[int]bool{}}
	for _, way := range []string{AnswerVertices, AnswerEdges, AnswerCells, AnswerItems} {
		var text strings.Builder
		for _, row := range said[way] {
			for _, n := range row {
				fmt.Fprintf(&text, "%d ", n)
			}
		}
		if text.Len() == 0 {
			continue
		}
		m, why := MarksOf(way, p, text.String())
		if m == nil {
			continue
		}
		if words == "" {
			words = why
		}
		if way != AnswerEdges { // whose ends are no answer of their own
			maps.Copy(all.Vertices, m.Vertices)
		}
		maps.Copy(all.Edges, m.Edges)
		maps.Copy(all.Cells, m.Cells)
		maps.Copy(all.Items, m.Items)
	}
	return all, words
}

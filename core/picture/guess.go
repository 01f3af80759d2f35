package picture

import (
	"fmt"
	"strconv"
	"strings"
)

// Guess says what a text without a shape looks like: a grid, a list of edges, a matrix, an array. Every picture says
// in its title that it is a guess.
func Guess(text string) (pictures []Picture) {
	lines := strings.Split(strings.TrimRight(strings.ReplaceAll(text, "\r\n", "\n"), "\n"), "\n")
	guessed := func(p *Picture, what string) {
		p.Title, p.Guessed = what, true
		pictures = append(pictures, *p)
	}
	for at := 0; at < len(lines); {
		if n, p := guessGrid(lines[at:]); n > 0 {
			guessed(p, fmt.Sprintf("lines %d to %d look like a grid", at+1, at+n))
			at += n
			continue
		}
		if n, p := guessEdges(lines, at); n > 0 {
			guessed(p, fmt.Sprintf("lines %d to %d look like the edges of a graph", at+1, at+n))
			at += n
			continue
		}
		if p := guessArray(lines[at]); p != nil && len(pictures) < 4 {
			guessed(p, fmt.Sprintf("line %d looks like an array", at+1))
		}
		at++
	}
	return pictures
}

// guessGrid takes lines of one width, without blanks, that are no numbers.
func guessGrid(lines []string) (n int, p *Picture) {
	width := len(lines[0])
	if width < 2 {
		return 0, nil
	}
	plain := true
	for n < len(lines) && len(lines[n]) == width && !strings.ContainsAny(lines[n], " \t") && n < MostRows {
		if _, err := strconv.ParseFloat(lines[n], 64); err != nil {
			plain = false
		}
		n++
	}
	if n < 2 || plain && width < 3 || plain && n < 3 {
		return 0, nil
	}
	return n, &Picture{Grid: lines[:n]}
}

// guessEdges takes m lines of two numbers from 1 to n, or three with a weight, behind a line that begins with "n m".
func guessEdges(lines []string, at int) (count int, p *Picture) {
	if at == 0 {
		return 0, nil
	}
	head := numbers(lines[at-1])
	if len(head) < 1 {
		return 0, nil
	}
	n := head[0]
	m := n - 1
	if len(head) >= 2 {
		m = head[1]
	}
	if n < 2 || n > MostVertices || m < 1 || m > MostEdges || int64(len(lines)-at) < m {
		return 0, nil
	}
	g := &Graph{From: 1, N: int(n), Tree: len(head) == 1}
	least := int64(1)
	for _, line := range lines[at : at+int(m)] {
		row := numbers(line)
		if len(row) < 2 || len(row) > 3 || row[0] < 0 || row[1] < 0 || row[0] > n || row[1] > n {
			return 0, nil
		}
		least = min(least, row[0], row[1])
		edge := Edge{A: int(row[0]), B: int(row[1])}
		if len(row) == 3 {
			edge.Label = strconv.FormatInt(row[2], 10)
		}
		g.Edges = append(g.Edges, edge)
	}
	g.From = least
	for i := range g.Edges {
		g.Edges[i].A -= int(least)
		g.Edges[i].B -= int(least)
		if g.Edges[i].A >= g.N || g.Edges[i].B >= g.N {
			return 0, nil
		}
	}
	return int(m), &Picture{Graph: g}
}

// guessArray takes a line of three numbers and more.
func guessArray(line string) *Picture {
	var list []any
	for _, n := range numbers(line) {
		list = append(list, n)
	}
	if len(list) < 3 {
		return nil
	}
	p, _ := ofBars(list)
	return p
}

// numbers are those of a line; nil: it holds something else.
func numbers(line string) (list []int64) {
	for _, word := range strings.Fields(line) {
		n, err := strconv.ParseInt(word, 10, 64)
		if err != nil {
			return nil
		}
		list = append(list, n)
	}
	return list
}

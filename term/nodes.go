package term

import (
	"slices"
	"strings"

	"github.com/charmbracelet/x/ansi"

	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// Lists and trees of function problems are drawn where they are small.

// mostDrawn bounds the nodes of a tree that is drawn.
const mostDrawn = 60

// drawNodes draws what is made of nodes, in lines of at most so many columns; nil: it is no list or tree,
// there is nothing to be seen, or it does not fit.
func drawNodes(t value.Type, v any, width int) (lines []string) {
	switch t.Kind {
	case value.List, value.List2:
		lines = drawList(t.Kind, v)
	case value.Tree, value.Nary:
		if list, ok := v.([]any); ok && len(list) > 1 && len(list) <= 2*mostDrawn {
			lines = treeOf(t.Kind, list).drawn().lines
		}
	}
	for i := range lines {
		lines[i] = strings.TrimRight(lines[i], " ")
	}
	if slices.ContainsFunc(lines, func(line string) bool { return ansi.StringWidth(line) > width }) {
		return nil
	}
	return lines
}

// drawList draws a list: "3 → 2 → 0 → back to 2 at 1".
func drawList(kind value.Kind, v any) []string {
	back := ""
	if circle, ok := v.(value.Object); ok {
		list, _ := circle.Get("list")
		at, _ := circle.Get("cycle")
		v = list
		if values, ok := list.([]any); ok {
			back = " → back to " + Visible(value.Write(values[at.(int64)])) + " at " + value.Write(at)
		}
	}
	list, _ := v.([]any)
	if len(list) < 2 && back == "" {
		return nil
	}
	words := make([]string, len(list))
	for i, one := range list {
		words[i] = Visible(value.Write(one))
	}
	arrow := " → "
	if kind == value.List2 {
		arrow = " ⇄ "
	}
	return []string{strings.Join(words, arrow) + back}
}

// A treeNode is a node of a tree that is drawn.
type treeNode struct {
	label    string
	children []*treeNode // of a tree of two the left and the right one, nil where there is none
	two      bool
}

// treeOf builds a tree of the array that a case has for it.
func treeOf(kind value.Kind, list []any) *treeNode {
	nodes := make([]*treeNode, len(list))
	for i, one := range list {
		if one != nil {
			nodes[i] = &treeNode{label: Visible(value.Write(one)), two: kind == value.Tree}
		}
	}
	for i, children := range value.Children(kind, len(list), func(at int) bool { return nodes[at] != nil }) {
		for _, at := range children {
			var child *treeNode
			if at >= 0 {
				child = nodes[at]
			}
			nodes[i].children = append(nodes[i].children, child)
		}
	}
	return nodes[0]
}

// A nodeSketch is what is drawn of a tree: lines of one width, and the column of its root.
type nodeSketch struct {
	lines []string
	width int
	root  int
}

// between is how many columns lie between the pictures of two children.
const between = 2

// drawn draws a tree from its leaves up: the pictures of the children beside each other, their parent above
// the middle of their roots.
func (n *treeNode) drawn() nodeSketch {
	var below nodeSketch
	var roots []int // columns of the children's
	var left, right bool
	for i, child := range n.children {
		if child == nil {
			continue
		}
		if p := child.drawn(); len(roots) == 0 {
			below, roots = p, []int{p.root}
		} else {
			roots = append(roots, below.width+between+p.root)
			below = beside(below, p)
		}
		left, right = left || n.two && i == 0, right || n.two && i == 1
	}
	size := width(n.label)
	if len(roots) == 0 {
		return nodeSketch{[]string{n.label}, size, (size - 1) / 2}
	}
	first, last := roots[0], roots[len(roots)-1]
	root := (first + last) / 2
	switch { // an only child lies on its side
	case left && !right:
		root = last + (size+1)/2 + 1
	case right && !left:
		root = first - (size+1)/2 - 1
	}
	begin := root - (size-1)/2
	if shift := -min(begin, root, 0); shift > 0 {
		below = shifted(below, shift)
		for i := range roots {
			roots[i] += shift
		}
		root, begin = root+shift, begin+shift
	}
	width := max(below.width, begin+size, root+1)
	lines := []string{strings.Repeat(" ", begin) + n.label, branches(root, roots)}
	return nodeSketch{padded(append(lines, below.lines...), width), width, root}
}

// branches draws the line between a parent and its children, by their columns.
func branches(root int, roots []int) string {
	from, to := min(root, roots[0]), max(root, roots[len(roots)-1])
	line := []rune(strings.Repeat(" ", from) + strings.Repeat("─", to-from+1))
	for i, at := range roots {
		switch {
		case at == from && at == to:
			line[at] = '│'
		case at == from:
			line[at] = '┌'
		case at == to:
			line[at] = '┐'
		case i > 0:
			line[at] = '┬'
		}
	}
	switch {
	case from == to:
	case root == from:
		line[root] = '└'
	case root == to:
		line[root] = '┘'
	case slices.Contains(roots, root):
		line[root] = '┼'
	default:
		line[root] = '┴'
	}
	return string(line)
}

// beside puts one nodeSketch to the right of another.
func beside(a, b nodeSketch) nodeSketch {
	width := a.width + between + b.width
	lines := make([]string, max(len(a.lines), len(b.lines)))
	for i := range lines {
		line := strings.Repeat(" ", a.width)
		if i < len(a.lines) {
			line = a.lines[i]
		}
		lines[i] = line + strings.Repeat(" ", between)
		if i < len(b.lines) {
			lines[i] += b.lines[i]
		}
	}
	return nodeSketch{padded(lines, width), width, a.root}
}

// shifted moves a nodeSketch to the right.
func shifted(p nodeSketch, by int) nodeSketch {
	for i, line := range p.lines {
		p.lines[i] = strings.Repeat(" ", by) + line
	}
	return nodeSketch{p.lines, p.width + by, p.root + by}
}

// padded fills lines up to a width.
func padded(lines []string, width int) []string {
	for i, line := range lines {
		lines[i] = pad(line, width)
	}
	return lines
}

// argumentsDrawn shows the lists and trees among the arguments of a case.
func (v *TryView) argumentsDrawn(c *problem.Case) {
	asked := v.Problem.Call
	if asked == nil || asked.Class != nil || c.Input.Size > drawnBytes {
		return
	}
	text, err := c.Input.Head(drawnBytes)
	if err != nil {
		return
	}
	args, err := asked.ReadArguments(string(problem.Plain(text)))
	if err != nil {
		return
	}
	for i, f := range asked.Takes {
		v.drawing(f.Name, drawNodes(f.Type, args[i], v.Screen.Width-4))
	}
}

// drawnBytes bounds the arguments that are drawn, in bytes.
const drawnBytes = 2000

// drawing shows a drawing, if there is one.
func (v *TryView) drawing(title string, lines []string) {
	if len(lines) == 0 {
		return
	}
	v.Screen.Print("\n  %s", strong.Render(title))
	for _, line := range lines {
		v.Screen.Print("    %s", line)
	}
}

// resultsDrawn shows the list or tree that was expected, and that which was returned, beside each other where
// there is room.
func (v *TryView) resultsDrawn(c *problem.Case, o verdict.Outcome) {
	results := v.Problem.Call.Results()
	if len(results) != 1 || len(o.Returned) > drawnBytes || o.Difference != nil && len(c.Accepted) != 1 {
		return
	}
	read := func(text string) []string {
		one, err := value.Read(text, results[0].Type)
		if err != nil {
			return nil
		}
		return drawNodes(results[0].Type, one, v.Screen.Width-4)
	}
	got := read(o.Returned)
	if o.Difference == nil {
		v.drawing("returned, drawn", got)
		return
	}
	known, err := c.Accepted[0].Head(drawnBytes)
	if err != nil {
		return
	}
	expected := read(string(problem.Plain(known)))
	const title = "expected, drawn"
	column := widest(append([]string{title}, expected...)) + 4
	lists := len(expected) == 1 && len(got) == 1
	if len(expected) == 0 || len(got) == 0 || lists || column+widest(got) > v.Screen.Width-4 {
		v.drawing(title, expected)
		v.drawing("returned, drawn", got)
		return
	}
	v.Screen.Print("\n  %s%s", pad(strong.Render(title), column), strong.Render("returned, drawn"))
	v.Screen.printBeside("    ", expected, got, column)
}

package term

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"charm.land/lipgloss/v2"

	"coldverdict/core/picture"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// What fits a screen. Larger pictures are drawn into files.
const (
	mostDrawnVertices = 60
	mostTreeLines     = 60
	mostDrawnRows     = 40
	mostDrawnItems    = 60
)

// Picture draws a picture in cells. What is marked is drawn in another style and with another sign.
func (s *Screen) Picture(p picture.Picture, m *picture.Marks) {
	title := strong.Render(Visible(p.Title))
	if p.Guessed {
		title = Visible(p.Title) + dim.Render(" (a guess; input.shape would say)")
	}
	s.Print("%s", title)
	if m == nil {
		m = &picture.Marks{}
	}
	var lines []string
	switch {
	case p.Graph != nil && p.Graph.Tree && p.Graph.N <= mostTreeLines:
		lines = s.treeLines(p.Graph, m)
	case p.Graph != nil && p.Graph.N <= mostDrawnVertices:
		lines = s.graphLines(p.Graph, m)
	case p.Graph != nil:
		lines = []string{fmt.Sprintf("%s and %s; --out FILE.svg draws them", Count(p.Graph.N, "vertex"), Count(len(p.Graph.Edges), "edge"))}
	case p.Grid != nil:
		lines = s.gridLines(p.Grid, m)
	case p.Bars != nil:
		lines = s.barLines(p.Bars, m)
	case p.Spans != nil:
		lines = s.spanLines(p.Spans, m)
	case p.Points != nil:
		lines = s.pointLines(p.Points, m)
	case p.Cycles != nil:
		lines = s.cycleLines(p.Cycles)
	case p.Word != nil:
		lines = s.wordLines(p.Word)
	}
	for _, line := range lines {
		s.Print("  %s", line)
	}
}

// picked is the style of what an answer points at.
var picked = lipgloss.NewStyle().Foreground(amber).Bold(true).Underline(true)

func vertexLabel(g *picture.Graph, v int) string {
	if g.Labels != nil {
		return g.Labels[v]
	}
	return strconv.FormatInt(int64(v)+g.From, 10)
}

// markedVertex is a vertex's label: in brackets where an answer points at it.
func markedVertex(g *picture.Graph, v int, m *picture.Marks) string {
	label := vertexLabel(g, v)
	if m.Vertices[v] {
		return picked.Render("[" + label + "]")
	}
	return label
}

// treeLines draws a tree, or a forest, as branches.
func (s *Screen) treeLines(g *picture.Graph, m *picture.Marks) (lines []string) {
	type branch struct {
		to    int
		label string
	}
	beside := make([][]branch, g.N)
	for _, e := range g.Edges {
		beside[e.A], beside[e.B] = append(beside[e.A], branch{e.B, e.Label}), append(beside[e.B], branch{e.A, e.Label})
	}
	seen := make([]bool, g.N)
	var draw func(v int, lead string)
	draw = func(v int, lead string) {
		seen[v] = true
		var children []branch
		for _, b := range beside[v] {
			if !seen[b.to] {
				seen[b.to] = true
				children = append(children, b)
			}
		}
		slices.SortFunc(children, func(a, b branch) int { return a.to - b.to })
		for i, child := range children {
			fork, more := "├─", "│  "
			if i == len(children)-1 {
				fork, more = "└─", "   "
			}
			if child.label != "" {
				fork += dim.Render(child.label) + "─"
			}
			if m.Edges[[2]int{v, child.to}] {
				fork = picked.Render(fork)
			}
			lines = append(lines, dim.Render(lead)+fork+" "+markedVertex(g, child.to, m))
			draw(child.to, lead+more)
		}
	}
	for v := range g.N {
		if !seen[v] {
			lines = append(lines, markedVertex(g, v, m))
			draw(v, "")
		}
	}
	return lines
}

// A canvas is a field of cells, each of two by four dots, on which labels lie.
type canvas struct {
	wide, high int
	dots       [][]uint8
	strong     [][]bool
	cells      [][]string // of labels; "": none
}

func newCanvas(wide, high int) *canvas {
	c := &canvas{wide: wide, high: high}
	for range high {
		c.dots, c.strong, c.cells = append(c.dots, make([]uint8, wide)), append(c.strong, make([]bool, wide)), append(c.cells, make([]string, wide))
	}
	return c
}

// dotBits are the bits of a cell's dots in the braille patterns of Unicode, by column and row.
var dotBits = [2][4]uint8{{0x01, 0x02, 0x04, 0x40}, {0x08, 0x10, 0x20, 0x80}}

func (c *canvas) dot(x, y int, isStrong bool) {
	if x < 0 || y < 0 || x >= 2*c.wide || y >= 4*c.high {
		return
	}
	c.dots[y/4][x/2] |= dotBits[x%2][y%4]
	c.strong[y/4][x/2] = c.strong[y/4][x/2] || isStrong
}

// line draws from one place to another, both in dots.
func (c *canvas) line(x1, y1, x2, y2 float64, isStrong bool) {
	steps := int(max(math.Abs(x2-x1), math.Abs(y2-y1))) + 1
	for i := 0; i <= steps; i++ {
		t := float64(i) / float64(steps)
		c.dot(int(math.Round(x1+t*(x2-x1))), int(math.Round(y1+t*(y2-y1))), isStrong)
	}
}

// label lays a text over the dots, around a cell.
func (c *canvas) label(x, y int, text string, style lipgloss.Style) {
	from := min(max(0, x-(width(text)-1)/2), max(0, c.wide-width(text)))
	if y < 0 || y >= c.high {
		return
	}
	for i, r := range []rune(text) {
		if from+i < c.wide {
			c.cells[y][from+i] = style.Render(string(r))
		}
	}
}

func (c *canvas) lines() (list []string) {
	for y := range c.high {
		var b strings.Builder
		for x := range c.wide {
			switch {
			case c.cells[y][x] != "":
				b.WriteString(c.cells[y][x])
			case c.dots[y][x] == 0:
				b.WriteByte(' ')
			case c.strong[y][x]:
				b.WriteString(picked.UnsetUnderline().Render(string(rune(0x2800 + int(c.dots[y][x])))))
			default:
				b.WriteString(dim.Render(string(rune(0x2800 + int(c.dots[y][x])))))
			}
		}
		list = append(list, strings.TrimRight(b.String(), " "))
	}
	return list
}

// graphLines draws a graph: edges as dots, vertices as their labels.
func (s *Screen) graphLines(g *picture.Graph, m *picture.Marks) []string {
	places := picture.Lay(g)
	low, high := picture.Bounds(places)
	label := 1
	for v := range g.N {
		label = max(label, width(vertexLabel(g, v))+2)
	}
	wide := min(s.Width-4, max(20, int((high.X-low.X)*float64(label+4))+label+4))
	tall := min(36, max(3, int((high.Y-low.Y)*2.2)+2))
	c := newCanvas(wide, tall)
	at := func(p picture.Place) (x, y float64) { // in dots
		spanX, spanY := max(high.X-low.X, 1e-9), max(high.Y-low.Y, 1e-9)
		return float64(label+1) + (p.X-low.X)/spanX*float64(2*wide-2*label-4), 2 + (p.Y-low.Y)/spanY*float64(4*tall-5)
	}
	for _, e := range g.Edges {
		if e.A == e.B {
			continue
		}
		x1, y1 := at(places[e.A])
		x2, y2 := at(places[e.B])
		c.line(x1, y1, x2, y2, m.Edges[[2]int{e.A, e.B}])
	}
	for _, e := range g.Edges {
		x1, y1 := at(places[e.A])
		x2, y2 := at(places[e.B])
		if g.Directed && e.A != e.B {
			part := 1 - 5/max(6, math.Hypot(x2-x1, y2-y1))
			c.label(int(x1+part*(x2-x1))/2, int(y1+part*(y2-y1))/4, arrowTo(x2-x1, y2-y1), normal)
		}
		if e.Label != "" && e.A != e.B {
			c.label(int(x1+x2)/4, int(y1+y2)/8, Visible(e.Label), dim)
		}
	}
	for v := range g.N {
		x, y := at(places[v])
		text, style := "("+vertexLabel(g, v)+")", strong // the label of an edge has no brackets
		if m.Vertices[v] {
			text, style = "["+vertexLabel(g, v)+"]", picked
		}
		c.label(int(x)/2, int(y)/4, text, style)
	}
	lines := c.lines()
	if words := oddEdges(g); words != "" {
		lines = append(lines, dim.Render(words))
	}
	return lines
}

// arrowTo is the arrow that points that way; y grows downwards.
func arrowTo(dx, dy float64) string {
	arrows := []string{"→", "↘", "↓", "↙", "←", "↖", "↑", "↗"}
	turn := math.Atan2(dy, dx)/(math.Pi/4) + 8.5
	return arrows[int(turn)%8]
}

// oddEdges say what cells cannot show: loops and edges that are there several times.
func oddEdges(g *picture.Graph) string {
	var words []string
	times := map[[2]int]int{}
	for _, e := range g.Edges {
		if e.A == e.B {
			words = append(words, "loop at "+vertexLabel(g, e.A))
			continue
		}
		key := [2]int{e.A, e.B}
		if !g.Directed && e.A > e.B {
			key = [2]int{e.B, e.A}
		}
		if times[key]++; times[key] == 2 {
			words = append(words, "several between "+vertexLabel(g, e.A)+" and "+vertexLabel(g, e.B))
		}
	}
	return strings.Join(words[:min(len(words), 6)], ", ")
}

// symbolStyles tell the symbols of a grid apart, beside their forms.
var symbolStyles = []lipgloss.Style{
	lipgloss.NewStyle().Foreground(grey), lipgloss.NewStyle().Foreground(teal).Bold(true), lipgloss.NewStyle().Foreground(violet).Bold(true),
	lipgloss.NewStyle().Foreground(rose).Bold(true), lipgloss.NewStyle().Bold(true),
}

// gridLines draws a grid with the numbers of its rows and columns.
func (s *Screen) gridLines(rows []string, m *picture.Marks) (lines []string) {
	counts := map[rune]int{}
	wide := 0
	for _, row := range rows {
		for _, r := range row {
			counts[r]++
		}
		wide = max(wide, width(Visible(row)))
	}
	symbols := make([]rune, 0, len(counts))
	for r := range counts {
		symbols = append(symbols, r)
	}
	slices.SortFunc(symbols, func(a, b rune) int { // the most frequent is the ground
		if counts[a] != counts[b] {
			return counts[b] - counts[a]
		}
		return int(a - b)
	})
	lead := len(strconv.Itoa(len(rows)))
	most := max(10, (s.Width-lead-6)/2)
	ruler := strings.Repeat(" ", lead+1)
	for c := 1; c <= min(wide, most); c++ {
		ruler += " " + strconv.Itoa(c%10)
	}
	lines = append(lines, dim.Render(ruler))
	for i, row := range rows[:min(len(rows), mostDrawnRows)] {
		line := dim.Render(padLeft(strconv.Itoa(i+1), lead)) + " "
		for c, r := range []rune(Visible(row)) {
			if c == most {
				line += " …"
				break
			}
			style := symbolStyles[min(max(0, slices.Index(symbols, r)), len(symbolStyles)-1)]
			if m.Cells[[2]int{i, c}] {
				line += picked.Render("•" + string(r))
				continue
			}
			line += " " + style.Render(string(r))
		}
		lines = append(lines, line)
	}
	if len(rows) > mostDrawnRows {
		lines = append(lines, dim.Render("… "+Count(len(rows)-mostDrawnRows, "row")+" more; --out FILE.svg draws all"))
	}
	return lines
}

// barLines draws each value as a bar from the zero line.
func (s *Screen) barLines(bars []float64, m *picture.Marks) (lines []string) {
	low, high, wide := 0.0, 0.0, 1
	shown := bars[:min(len(bars), mostDrawnItems)]
	for _, x := range shown {
		low, high, wide = min(low, x), max(high, x), max(wide, len(amount(x)))
	}
	lead := len(strconv.Itoa(len(shown)))
	room := float64(max(10, s.Width-lead-wide-10))
	scale := room / max(high-low, 1e-300)
	zero := int(math.Round(-low * scale))
	for i, x := range shown {
		at := int(math.Round((x - low) * scale))
		from, to := min(zero, at), max(zero, at)
		bar := strings.Repeat(" ", from) + strings.Repeat("▇", to-from)
		style, sign := lipgloss.NewStyle().Foreground(teal), " "
		if m.Items[i] {
			style, sign = picked, "•"
		}
		lines = append(lines, strings.TrimRight(dim.Render(padLeft(strconv.Itoa(i+1), lead))+" "+padLeft(amount(x), wide)+" "+style.UnsetUnderline().Render(sign)+style.UnsetUnderline().Render(bar), " "))
	}
	if len(bars) > len(shown) {
		lines = append(lines, dim.Render("… "+Count(len(bars)-len(shown), "value")+" more; --out FILE.svg draws all"))
	}
	return lines
}

// amount is a number in as few digits as tell it.
func amount(x float64) string { return strconv.FormatFloat(x, 'g', -1, 64) }

// spanLines draws intervals below each other on one axis.
func (s *Screen) spanLines(spans [][2]float64, m *picture.Marks) (lines []string) {
	shown := spans[:min(len(spans), mostDrawnItems)]
	low, high := math.Inf(1), math.Inf(-1)
	for _, one := range shown {
		low, high = min(low, one[0]), max(high, one[1])
	}
	lead := len(strconv.Itoa(len(shown)))
	room := float64(max(20, min(s.Width-lead-24, 90)))
	at := func(x float64) int { return int(math.Round((x - low) / max(high-low, 1e-300) * (room - 1))) }
	for i, one := range shown {
		from, to := at(one[0]), at(one[1])
		text := "│"
		if to > from {
			text = "├" + strings.Repeat("─", to-from-1) + "┤"
		}
		style, sign := normal, " "
		if m.Items[i] {
			style, sign = picked.UnsetUnderline(), "•"
		}
		lines = append(lines, dim.Render(padLeft(strconv.Itoa(i+1), lead))+style.Render(sign)+pad(strings.Repeat(" ", from)+style.Render(text), int(room))+dim.Render("  "+amount(one[0])+" to "+amount(one[1])))
	}
	if len(spans) > len(shown) {
		lines = append(lines, dim.Render("… "+Count(len(spans)-len(shown), "interval")+" more; --out FILE.svg draws all"))
	}
	return append(lines, dim.Render(strings.Repeat(" ", lead+1)+amount(low)+padLeft(amount(high), int(room)-len(amount(low)))))
}

// pointLines draws points, numbered where they are few.
func (s *Screen) pointLines(p *picture.Points, m *picture.Marks) (lines []string) {
	low, high := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	for _, one := range p.At {
		for k := range 2 {
			low[k], high[k] = min(low[k], one[k]), max(high[k], one[k])
		}
	}
	wide, tall := min(s.Width-6, 72), 20
	c := newCanvas(wide, tall)
	at := func(one [2]float64) (x, y float64) {
		return 2 + (one[0]-low[0])/max(high[0]-low[0], 1e-300)*float64(2*wide-5), float64(4*tall-3) - (one[1]-low[1])/max(high[1]-low[1], 1e-300)*float64(4*tall-5)
	}
	for i := range p.At {
		if p.Closed && len(p.At) > 1 {
			x1, y1 := at(p.At[i])
			x2, y2 := at(p.At[(i+1)%len(p.At)])
			c.line(x1, y1, x2, y2, false)
		}
	}
	for i, one := range p.At {
		x, y := at(one)
		switch {
		case m.Items[i]:
			c.label(int(x)/2, int(y)/4, "["+strconv.Itoa(i+1)+"]", picked)
		case len(p.At) <= 40:
			c.label(int(x)/2, int(y)/4, strconv.Itoa(i+1), strong)
		default:
			c.dot(int(x), int(y), false)
		}
	}
	return append(c.lines(), dim.Render(fmt.Sprintf("x from %s to %s, y from %s to %s", amount(low[0]), amount(high[0]), amount(low[1]), amount(high[1]))))
}

// cycleLines says a permutation as its cycles.
func (s *Screen) cycleLines(cycles [][]int64) (lines []string) {
	fixed := 0
	for _, cycle := range cycles {
		if len(cycle) == 1 {
			fixed++
			continue
		}
		var words []string
		for _, x := range cycle {
			words = append(words, strconv.FormatInt(x, 10))
		}
		lines = append(lines, fit(strings.Join(words, " → ")+" ↩", s.Width-4))
		if len(lines) == mostDrawnRows {
			break
		}
	}
	if fixed > 0 {
		lines = append(lines, dim.Render(Count(fixed, "element")+" at its own place"))
	}
	return lines
}

// wordLines marks where the longest repeat of a word stands.
func (s *Screen) wordLines(w *picture.Word) (lines []string) {
	inside := make([]bool, len(w.Text)+1)
	for _, at := range w.At {
		for i := range len(w.Repeat) {
			inside[at+i] = true
		}
	}
	room := max(20, s.Width-4)
	for from := 0; from < len(w.Text) && len(lines) < mostDrawnRows; from += room {
		var text, below strings.Builder
		for i := from; i < min(len(w.Text), from+room); i++ {
			one, mark := Visible(w.Text[i:i+1]), " "
			if inside[i] {
				one, mark = verdictStyle(verdict.Accepted).Render(one), "▔"
			}
			text.WriteString(one)
			below.WriteString(mark)
		}
		lines = append(lines, text.String(), dim.Render(strings.TrimRight(below.String(), " ")))
	}
	if w.Repeat == "" {
		return append(lines, dim.Render("no part of two characters and more is in it twice"))
	}
	return append(lines, dim.Render(fmt.Sprintf("%s stands in it %d times, from %s on", fit(Visible(w.Repeat), 40), len(w.At), positions(w.At))))
}

func positions(at []int) string {
	var words []string
	for _, i := range at[:min(len(at), 6)] {
		words = append(words, strconv.Itoa(i+1))
	}
	return strings.Join(words, ", ")
}

// inputDrawn draws what an input holds, where a picture says more than its text and it is small.
func (s *Screen) inputDrawn(p *problem.Problem, input problem.Data) {
	for _, one := range picture.Beside(p, input) {
		s.Print("")
		s.Picture(one, nil)
	}
}

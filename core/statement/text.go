package statement

import (
	"slices"
	"strings"

	"coldverdict/internal/lazy"
)

// textPieces reads a page of Markdown or plain text line by line.
func textPieces(text []byte) []piece {
	t := &textReader{lines: unquoted(strings.Split(string(text), "\n"))}
	t.marked = slices.ContainsFunc(t.lines, func(line string) bool { return fence().MatchString(line) || mdHeading().MatchString(line) })
	for t.at < len(t.lines) {
		t.next()
	}
	if n := len(t.pieces); n > 0 && t.lines[len(t.lines)-1] != "" { // the last line has no end
		t.pieces[n-1].cut = true
	}
	return t.pieces
}

// unquoted takes the marks off lines that are quoted as a whole, where labels or blocks stand in them.
func unquoted(lines []string) []string {
	for from := 0; from < len(lines); from++ {
		to := from
		meant := false
		for ; to < len(lines) && strings.HasPrefix(lines[to], ">"); to++ {
			plain := strings.TrimPrefix(strings.TrimPrefix(lines[to], ">"), " ")
			meant = meant || fence().MatchString(plain) || mdHeading().MatchString(plain) || labelOf(strings.Trim(plain, "*_")).kind != ""
		}
		for i := from; meant && i < to; i++ {
			lines[i] = strings.TrimPrefix(strings.TrimPrefix(lines[i], ">"), " ")
		}
		from = max(from, to-1)
	}
	return lines
}

// A textReader goes through the lines once.
type textReader struct {
	lines  []string
	at     int
	pieces []piece
	group  int
	cells  int      // of tables, so far
	head   []string // of the columns of the table that is being read
	// marked says that blocks are marked as such, and need not be guessed.
	marked bool
}

func (t *textReader) add(p piece) {
	p.group = t.group
	t.pieces = append(t.pieces, p)
}

var (
	fence     = lazy.New("^ {0,3}(```+|~~~+)")
	mdHeading = lazy.New(`^ {0,3}(#{1,6})\s+(.*?)\s*#*\s*$`)
	underline = lazy.New(`^\s*(=+|-+|~+|\*+)\s*$`)
	emphasis  = lazy.New(`^(?:[-*+]\s+)?(?:\*\*|__|\*|_)([^*_]+?)(?:\*\*|__|\*|_)\s*:?$`)
	leading   = lazy.New(`^(?:[-*+]\s+)?(?:\*\*|__)([^*_]+?)(?:\*\*|__)(\s*:)?\s*(.+)$`)
	problemAt = lazy.New(`^(?:(?i:problem|task|aufgabe|problema|problème|zadanie|задача|题目|問題|문제)\s+[A-Z0-9]{1,2}\b.*|[A-Z][.)] \S.*)$`)
	tableLine = lazy.New(`^\s*\|.*\|\s*$`)
	tableRule = lazy.New(`^\s*\|[\s:|-]+\|\s*$`)
)

func (t *textReader) next() {
	line := t.lines[t.at]
	text := strings.TrimSpace(line)
	before := t.at == 0 || strings.TrimSpace(t.lines[t.at-1]) == ""
	if !tableLine().MatchString(line) {
		t.head = nil
	}
	switch {
	case text == "":
		t.group++
		t.add(piece{kind: gap, line: t.at + 1})
		t.at++
	case fence().MatchString(line):
		t.fenced()
	case mdHeading().MatchString(line):
		m := mdHeading().FindStringSubmatch(line)
		t.headingLine(strings.Trim(m[2], "*_ "), len(m[1]))
	case emphasis().MatchString(text) && len(text) <= longestLabel:
		t.headingLine(emphasis().FindStringSubmatch(text)[1], boldLevel)
	case tableLine().MatchString(line) && t.marked:
		t.tableRow(text)
	case t.at+1 < len(t.lines) && before && len(text) <= longestLabel && len(strings.TrimSpace(t.lines[t.at+1])) > 2 && underline().MatchString(t.lines[t.at+1]):
		mark := t.at + 1
		t.headingLine(text, map[byte]int{'=': 1, '-': 2}[strings.TrimSpace(t.lines[mark])[0]])
		t.at = mark + 1
	case t.columns():
	case before && (strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t")) && t.marked:
		t.indented()
	case before && len(text) <= longestLabel && problemAt().MatchString(text) && t.emptyNext():
		t.headingLine(text, 2)
	case len(t.pieces) == 0 && len(text) <= longestLabel && t.emptyNext():
		t.headingLine(text, 1) // the first line of a page is its title
	default:
		p := piece{kind: prose, text: line, line: t.at + 1}
		if m := leading().FindStringSubmatch(text); m != nil {
			p.lead, p.text = m[1], m[1]+m[2]+" "+m[3]
		}
		t.add(p)
		t.at++
	}
}

func (t *textReader) emptyNext() bool {
	return t.at+1 == len(t.lines) || strings.TrimSpace(t.lines[t.at+1]) == ""
}

func (t *textReader) headingLine(text string, level int) {
	t.group++
	t.add(piece{kind: heading, level: max(level, 1), text: text, line: t.at + 1})
	t.group++
	t.at++
	// A line drawn under a label is no data.
	if t.at < len(t.lines) && underline().MatchString(t.lines[t.at]) && len(strings.TrimSpace(t.lines[t.at])) > 2 && labelOf(text).kind != "" {
		t.at++
	}
}

func (t *textReader) fenced() {
	mark := strings.TrimSpace(fence().FindString(t.lines[t.at]))
	began := t.at + 2
	var lines []string
	for t.at++; t.at < len(t.lines) && !strings.HasPrefix(strings.TrimSpace(t.lines[t.at]), mark); t.at++ {
		lines = append(lines, t.lines[t.at])
	}
	p := piece{kind: block, text: strings.Join(lines, "\n"), line: began, cut: t.at >= len(t.lines)}
	t.at++
	t.add(p)
}

// tableRow reads a row of a table in Markdown; its cells have lines where <br> stands.
func (t *textReader) tableRow(text string) {
	line := t.at + 1
	t.at++
	if tableRule().MatchString(text) {
		return
	}
	cells := strings.Split(strings.Trim(text, "|"), "|")
	if t.head == nil {
		for _, cell := range cells {
			t.head = append(t.head, strings.Trim(strings.TrimSpace(cell), "*_"))
		}
		for _, cell := range t.head {
			t.group++
			t.cells++
			t.add(piece{kind: prose, text: cell, line: line, cell: t.cells})
		}
		return
	}
	for i, cell := range cells {
		t.group++
		t.cells++
		cell = strings.ReplaceAll(strings.TrimSpace(cell), "`", "")
		p := piece{kind: prose, text: cell, line: line, cell: t.cells}
		if i < len(t.head) {
			p.label = t.head[i]
		}
		if k := columnLabel(p.label).kind; k == "input" || k == "output" {
			p.kind, p.text = block, brTag().ReplaceAllString(cell, "\n")
		}
		t.add(p)
	}
}

var brTag = lazy.New(`(?i)\s*<br\s*/?>\s*`)

// indented reads a block of indented lines, empty ones among them included.
func (t *textReader) indented() {
	began, end := t.at, t.at
	for i := t.at; i < len(t.lines); i++ {
		line := t.lines[i]
		if strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t") {
			end = i + 1
		} else if strings.TrimSpace(line) != "" {
			break
		}
	}
	lines := make([]string, 0, end-began)
	for _, line := range t.lines[began:end] {
		if rest, ok := strings.CutPrefix(line, "\t"); ok {
			line = rest
		} else {
			line = line[min(4, len(line)-len(strings.TrimLeft(line, " "))):]
		}
		lines = append(lines, line)
	}
	t.at = end
	t.add(piece{kind: block, text: strings.Join(lines, "\n"), line: began + 1})
}

var sideBySide = lazy.New(`^(\s*\S.*?\S)(?:\s{2,}|\t+)(\S.*)$`)

// columnHeads reads a line with the labels of input and output beside each other.
func columnHeads(line string) (left, right label, ok bool) {
	m := sideBySide().FindStringSubmatch(line)
	if m == nil {
		return left, right, false
	}
	left, right = labelOf(m[1]), labelOf(m[2])
	return left, right, left.kind == "input" && right.kind == "output" && left.rest+right.rest == ""
}

// columns reads samples as they stand in a printed page: the input on the left, its output on the right, each line of
// both in one line.
func (t *textReader) columns() bool {
	left, right, ok := columnHeads(t.lines[t.at])
	if !ok {
		return false
	}
	m := sideBySide().FindStringSubmatchIndex(t.lines[t.at])
	if strings.Contains(t.lines[t.at][m[3]:m[4]], "\t") {
		return t.copiedTable(left, right)
	}
	at, began := m[4], t.at+2
	var inputs, outputs []string
	var doubts []string
	for t.at++; t.at < len(t.lines); t.at++ {
		line := strings.ReplaceAll(t.lines[t.at], "\t", "        ")
		if strings.TrimSpace(line) == "" {
			if len(inputs) > 0 && (t.at+1 == len(t.lines) || !t.goesOn(t.at+1, at)) {
				break
			}
			if len(inputs) > 0 {
				inputs, outputs = append(inputs, ""), append(outputs, "")
			}
			continue
		}
		if l := labelOf(strings.TrimSpace(line)); l.kind != "" && l.rest == "" || sideBySide().MatchString(line) && labelOf(strings.TrimSpace(line[:min(at, len(line))])).kind == "input" {
			break
		}
		cut := cutAt(line, at)
		if cut < 0 {
			doubts = append(doubts, "the columns of line "+itoa(t.at+1)+" run into each other")
			cut = len(line)
		}
		inputs = append(inputs, strings.TrimRight(line[:cut], " "))
		outputs = append(outputs, strings.TrimRight(strings.TrimLeft(line[cut:], " "), " "))
	}
	if last := slices.IndexFunc(outputs, func(o string) bool { return o == "" }); last >= 0 && strings.TrimSpace(strings.Join(outputs[last:], "")) != "" {
		doubts = append(doubts, "its output has empty lines, which may be the page's")
	}
	cut := t.at >= len(t.lines) && t.lines[len(t.lines)-1] != ""
	t.group++
	add := func(label, text string, indent bool) {
		if indent {
			text = unindented(text)
		}
		t.add(piece{kind: block, text: text, line: began, label: label, doubts: doubts, cut: cut})
	}
	label := func(l label) string {
		if l.sample {
			return "sample " + l.kind
		}
		return l.kind
	}
	add(label(left), strings.TrimRight(strings.Join(inputs, "\n"), "\n"), true)
	add(label(right), strings.TrimRight(strings.Join(outputs, "\n"), "\n"), false)
	return true
}

// copiedTable reads a table that was copied as text: the cells of a row with a tab between them, whose own lines
// remain. Which lines without a tab belong to which side is only clear where there are none.
func (t *textReader) copiedTable(left, right label) bool {
	began := t.at + 1
	var lines []string
	for t.at++; t.at < len(t.lines) && strings.TrimSpace(t.lines[t.at]) != ""; t.at++ {
		if l := labelOf(strings.TrimSpace(t.lines[t.at])); l.kind != "" && l.rest == "" {
			break
		}
		lines = append(lines, t.lines[t.at])
	}
	doubtful := slices.ContainsFunc(lines, func(line string) bool { return strings.Count(line, "\t") != 1 })
	cut := t.at >= len(t.lines) && t.lines[len(t.lines)-1] != ""
	var input []string
	for i, line := range lines {
		before, after, ok := strings.Cut(line, "\t")
		if input = append(input, strings.TrimRight(before, " ")); !ok && i+1 < len(lines) {
			continue
		}
		var doubts []string
		if doubtful {
			doubts = []string{"a table was copied as text: which of its lines belong to which side is guessed"}
		}
		word := "sample "
		if !left.sample && !right.sample {
			word = ""
		}
		t.group++
		t.add(piece{kind: block, text: strings.Join(input, "\n"), line: began + i - len(input) + 2, label: word + "input", doubts: doubts})
		if ok {
			t.add(piece{kind: block, text: strings.TrimRight(after, " "), line: began + i + 1, label: word + "output", doubts: doubts, cut: cut && i+1 == len(lines)})
		}
		input = nil
	}
	return true
}

// goesOn reports that the columns go on in a line behind an empty one.
func (t *textReader) goesOn(i, at int) bool {
	line := t.lines[i]
	return strings.TrimSpace(line) != "" && labelOf(line).kind == "" && !reads().MatchString(line) && cutAt(line, at) >= 0 && len(line) > at
}

// cutAt is where the right column begins in a line: at its place, or at the wide gap that is nearest to it.
func cutAt(line string, at int) int {
	if len(line) <= at {
		if g := wideGap().FindAllStringIndex(line, -1); len(g) > 0 && strings.TrimSpace(line[:g[len(g)-1][0]]) != "" && g[len(g)-1][1] > at-8 {
			return g[len(g)-1][1]
		}
		return len(line)
	}
	if line[at-1] == ' ' && (at < 2 || line[at-2] == ' ' || strings.TrimSpace(line[:at]) == "") {
		return at
	}
	best := -1
	for _, g := range wideGap().FindAllStringIndex(line, -1) {
		if best < 0 || abs(g[1]-at) < abs(best-at) {
			best = g[1]
		}
	}
	return best
}

var wideGap = lazy.New(` {2,}`)

func abs(n int) int { return max(n, -n) }

// unindented takes off the blanks that all lines begin with.
func unindented(text string) string {
	lines := strings.Split(text, "\n")
	least := commonIndent(lines)
	for i, line := range lines {
		lines[i] = line[min(least, len(line)):]
	}
	return strings.Join(lines, "\n")
}

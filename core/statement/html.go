package statement

import (
	"bytes"
	"slices"
	"strconv"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"
)

// htmlPieces reads a page of HTML in reading order.
func htmlPieces(text []byte) (pieces []piece, title string) {
	h := &htmlReader{line: 1, began: 1}
	torn := bytes.LastIndexByte(text, '<') > bytes.LastIndexByte(text, '>') // the page ends within a tag
	if torn {
		text = text[:bytes.LastIndexByte(text, '<')]
	}
	z := html.NewTokenizer(bytes.NewReader(text))
	for {
		kind := z.Next()
		raw := bytes.Count(z.Raw(), []byte{'\n'})
		token := z.Token()
		switch kind {
		case html.ErrorToken:
			if h.pre > 0 { // the page ends within a block
				h.cut = true
				h.flush(block, 0)
			}
			h.flush(prose, 0)
			if n := len(h.pieces); n > 0 && (h.depth > 0 || torn) {
				h.pieces[n-1].cut = true
			}
			return h.pieces, strings.Join(strings.Fields(h.title), " ")
		case html.TextToken:
			h.take(token.Data)
		case html.StartTagToken, html.SelfClosingTagToken:
			if kind == html.StartTagToken && closed(token.DataAtom) {
				h.depth++
			}
			h.start(token)
		case html.EndTagToken:
			if closed(token.DataAtom) {
				h.depth--
			}
			h.end(token)
		}
		h.line += raw
	}
}

// An htmlReader gathers text until an element ends it.
type htmlReader struct {
	pieces  []piece
	text    strings.Builder
	title   string
	line    int // of the token
	began   int // line at which the text began
	pre     int // depth of preformatted elements
	preKind atom.Atom
	group   int  // of the paragraph or cell that is being read
	bold    int  // depth of what is printed bold
	lead    int  // bytes at the beginning that are printed bold
	cut     bool // the page ended in it
	silent  atom.Atom
	deep    int // elements of that kind within it
	tables  []*table
	cells   int // of tables, so far
	depth   int // of elements that must be closed
	around  []container
	known   int  // containers, so far
	broken  bool // a line was ended, and nothing stands on the next one yet
	hollow  int  // pieces before the element that holds nothing so far but a line's end or a blank; 0: there is none

	// Of the preformatted text that is being read:
	number  *lineNumber // the element that stands at the beginning of a line, and may hold its number
	numbers []lineNumber
	raised  bool // there is raised or lowered print in it
}

// A container is an element that holds paragraphs.
type container struct {
	kind atom.Atom
	id   int
}

// enter and leave keep account of the elements around what is read.
func (h *htmlReader) enter(a atom.Atom) {
	if n := len(h.around); n > 0 && h.around[n-1].kind == a && (a == atom.P || a == atom.Li || a == atom.Td || a == atom.Tr || a == atom.Dd || a == atom.Dt) {
		h.around = h.around[:n-1] // which need not be closed
	}
	h.known++
	h.around = append(h.around, container{a, h.known})
}

func (h *htmlReader) leave(a atom.Atom) {
	for i := len(h.around) - 1; i >= 0; i-- {
		if h.around[i].kind == a {
			h.around = h.around[:i]
			return
		}
	}
}

// inside is the element that what is read now shares with what stands beside it.
func (h *htmlReader) inside() int {
	n := len(h.around)
	switch {
	case n > 0 && slices.Contains([]atom.Atom{atom.Td, atom.Th, atom.Dd, atom.Dt}, h.around[n-1].kind):
		return h.around[n-1].id
	case n > 1:
		return h.around[n-2].id
	}
	return -1
}

// A table is known by the heads of its columns.
type table struct {
	heads  []string
	column int
	row    int
	cells  []string // of the row, so far
	spans  bool     // the row holds a cell over several columns
	lastTh bool     // its last cell is a head
	inHead bool
	marked bool // its heads are
	across bool // heads stand before their rows
	// Where its cells begin among the pieces, row by row; nil: it holds another table.
	grid  [][]int
	holds bool
}

func (h *htmlReader) take(text string) {
	switch {
	case h.silent == atom.Title:
		h.title += text
		return
	case h.silent != 0:
		return
	}
	if h.text.Len() == 0 {
		// The line of what is seen, not of the blanks before it.
		trimmed := strings.TrimLeft(text, " \t\n")
		h.began = h.line + strings.Count(text[:len(text)-len(trimmed)], "\n")
		if h.pre > 0 {
			if from, cut := strings.CutPrefix(text, "\n"); cut {
				text, h.began = from, min(h.began, h.line+1)
			} else {
				h.began = h.line
			}
		}
	}
	h.text.WriteString(text)
	if h.bold > 0 && h.lead >= 0 {
		h.lead = h.text.Len()
	} else if strings.TrimSpace(text) != "" && h.lead == 0 {
		h.lead = -1 // it begins with other print
	}
}

// flush ends the text that was gathered.
func (h *htmlReader) flush(kind pieceKind, level int) {
	text, lead := h.text.String(), h.lead
	h.text.Reset()
	h.lead = 0
	if strings.TrimSpace(text) != "" {
		h.broken = false
	}
	if kind != block {
		bold := ""
		if lead > 0 {
			bold = strings.Join(strings.Fields(text[:min(lead, len(text))]), " ")
		}
		text = strings.Join(strings.Fields(text), " ")
		if text == "" {
			return
		}
		if kind == prose && bold == text && len(text) <= longestLabel {
			kind, level = heading, boldLevel
		}
		h.add(piece{kind: kind, level: level, text: text, line: h.began, group: h.group, lead: bold, inside: h.inside()})
		return
	}
	p := piece{kind: block, text: text, line: h.began, last: h.line, group: h.group, cut: h.cut}
	if h.raised {
		p.doubts = append(p.doubts, "it has raised or lowered print, as in a power")
	}
	p.unnumbered(h.numbers)
	h.number, h.numbers, h.raised = nil, nil, false
	h.add(p)
}

// add notes a piece, and what the head of its column says.
func (h *htmlReader) add(p piece) {
	if t := h.table(); t != nil && t.column > 0 {
		if !t.across && !t.inHead && t.column <= len(t.heads) && (p.kind == block || t.row > 1) {
			p.label, p.headed = t.heads[t.column-1], t.marked
		}
		p.cell = h.cells
		if p.kind != block && !t.across && (t.inHead || t.row == 1) {
			for len(t.heads) < t.column {
				t.heads = append(t.heads, "")
			}
			t.heads[t.column-1] = strings.TrimSpace(t.heads[t.column-1] + " " + p.text)
		}
		for len(t.cells) < t.column {
			t.cells = append(t.cells, "")
		}
		t.cells[t.column-1] = strings.TrimSpace(t.cells[t.column-1] + " " + p.text)
		p.head = t.inHead
	}
	h.pieces = append(h.pieces, p)
}

// turn reads a table by its columns where each of them is a sample: where its rows, and not its columns, are called
// input and output, and each holds several.
func (h *htmlReader) turn(t *table) {
	if t.holds {
		return
	}
	// The pieces of a cell end where the next one begins.
	var starts []int
	for _, row := range t.grid {
		starts = append(starts, row...)
	}
	starts = append(starts, len(h.pieces))
	var rows [][][]piece // by row and column
	for n, i := 0, 0; i < len(t.grid); i++ {
		var row [][]piece
		for range t.grid[i] {
			row = append(row, h.pieces[starts[n]:starts[n+1]])
			n++
		}
		rows = append(rows, row)
	}
	width, found := 0, map[string]int{}
	for i, row := range rows {
		if len(row) < 3 || len(row[0]) != 1 {
			continue
		}
		kind := columnLabel(row[0][0].text).kind
		if kind != "input" && kind != "output" && kind != "note" {
			continue
		}
		if _, twice := found[kind]; twice || width > 0 && len(row) != width {
			return
		}
		width, found[kind] = len(row), i
	}
	in, isIn := found["input"]
	out, isOut := found["output"]
	if !isIn || !isOut {
		return
	}
	for column := 1; column < width; column++ {
		if (len(rows[in][column]) == 0) != (len(rows[out][column]) == 0) {
			return // whose it is, is not clear
		}
	}
	turned := slices.Clone(h.pieces[:starts[0]])
	for i, row := range rows {
		if kind := slices.Index([]int{in, out}, i); kind >= 0 || found["note"] == i && i > 0 {
			continue
		}
		turned = append(turned, slices.Concat(row...)...)
	}
	for column := 1; column < width; column++ {
		for _, i := range []int{in, out} {
			h.group++
			h.cells++
			for _, p := range rows[i][column] {
				p.label, p.headed, p.group, p.cell, p.head = rows[i][0][0].text, true, h.group, h.cells, false
				if p.kind == heading { // a value that is printed bold
					p.kind = prose
				}
				turned = append(turned, p)
			}
		}
		if i, ok := found["note"]; ok && len(rows[i][column]) > 0 {
			h.group++
			for _, p := range append(rows[i][0][:1:1], rows[i][column]...) {
				p.label, p.group, p.cell, p.head = "", h.group, 0, false
				turned = append(turned, p)
			}
		}
	}
	h.pieces = turned
}

func (h *htmlReader) table() *table {
	if len(h.tables) == 0 {
		return nil
	}
	return h.tables[len(h.tables)-1]
}

// hidden reports an element that holds nothing of the statement: menus, scripts, comments of readers.
func hidden(token html.Token) bool {
	switch token.DataAtom {
	case atom.Script, atom.Style, atom.Title, atom.Button, atom.Nav, atom.Noscript, atom.Template, atom.Select, atom.Aside, atom.Footer, atom.Svg:
		return true
	case atom.Div, atom.Section, atom.Ul, atom.Ol, atom.Article:
		for _, a := range token.Attr {
			if a.Key != "id" && a.Key != "class" && a.Key != "role" {
				continue
			}
			for _, word := range strings.FieldsFunc(strings.ToLower(a.Val), func(r rune) bool { return r == ' ' || r == '-' || r == '_' }) {
				switch word {
				case "comment", "comments", "discussion", "sidebar", "navigation", "navbar", "menu", "disqus", "replies":
					return true
				}
			}
		}
	}
	for _, a := range token.Attr {
		if a.Key == "hidden" || a.Key == "style" && strings.Contains(strings.ReplaceAll(a.Val, " ", ""), "display:none") {
			return !void(token.DataAtom)
		}
	}
	return false
}

// closed reports an element that is always closed where a page is whole.
func closed(a atom.Atom) bool {
	switch a {
	case atom.Html, atom.Div, atom.Table, atom.Section, atom.Main, atom.Article, atom.Details, atom.Pre, atom.Ul, atom.Ol, atom.Dl, atom.H1, atom.H2, atom.H3, atom.H4, atom.H5, atom.H6, atom.Span, atom.Code:
		return true
	}
	return false
}

// void reports an element that has no end.
func void(a atom.Atom) bool {
	switch a {
	case atom.Br, atom.Hr, atom.Img, atom.Input, atom.Meta, atom.Link, atom.Source, atom.Wbr, atom.Col, atom.Area, atom.Base, atom.Embed, atom.Param, atom.Track:
		return true
	}
	return false
}

func (h *htmlReader) start(token html.Token) {
	if h.silent != 0 {
		if token.DataAtom == h.silent && token.Type == html.StartTagToken {
			h.deep++
		}
		return
	}
	if token.Type == html.StartTagToken && hidden(token) {
		if h.pre == 0 && parting(token.DataAtom) {
			h.flush(prose, 0)
		}
		h.silent, h.deep = token.DataAtom, 0
		return
	}
	if h.pre > 0 {
		h.startWithin(token)
		return
	}
	a := token.DataAtom
	if token.Type == html.StartTagToken && (a == atom.Div || a == atom.P || a == atom.Code) && keepsLines(token) {
		h.preformatted(a)
		return
	}
	if enters := parting(a) || a == atom.Table || a == atom.Tr || a == atom.Td || a == atom.Th; enters && !void(a) && token.Type == html.StartTagToken {
		h.flush(prose, 0)
		h.enter(a)
	}
	switch a {
	case atom.B, atom.Strong:
		h.bold++
	case atom.Sup:
		h.text.WriteString("^")
	case atom.Pre, atom.Textarea, atom.Listing, atom.Xmp:
		h.preformatted(a)
	case atom.Table:
		h.flush(prose, 0)
		h.group++
		if t := h.table(); t != nil {
			t.holds = true
		}
		h.tables = append(h.tables, &table{})
	case atom.Tr:
		h.flush(prose, 0)
		h.group++
		if t := h.table(); t != nil {
			if t.row == 1 && t.spans { // it is a heading of the table
				t.row, t.heads, t.marked = 0, nil, false
			}
			t.column, t.row, t.cells, t.spans, t.lastTh = 0, t.row+1, nil, false, false
			t.grid = append(t.grid, nil)
		}
	case atom.Td, atom.Th:
		h.flush(prose, 0)
		h.group++
		if t := h.table(); t != nil {
			h.cells++
			t.column++
			if n := len(t.grid); n > 0 {
				t.grid[n-1] = append(t.grid[n-1], len(h.pieces))
			}
			t.inHead = a == atom.Th && (t.row == 1 || t.column > 1)
			t.spans = t.spans || slices.ContainsFunc(token.Attr, func(a html.Attribute) bool { return a.Key == "colspan" && a.Val != "1" })
			if a == atom.Th && t.lastTh && t.row > 1 && t.column == 2 { // heads of their own, for the rows below
				t.heads, t.marked, t.across = slices.Clone(t.cells), true, false
			}
			t.lastTh = a == atom.Th
			t.across = t.across || t.row == 1 && a == atom.Td && t.marked
			t.marked = t.inHead && t.row == 1 || t.marked && !t.across
		}
	case atom.Br:
		if h.broken && strings.TrimSpace(h.text.String()) == "" {
			h.blank()
		}
		h.flush(prose, 0)
		h.broken = true
		return
	default:
		if parting(a) {
			h.flush(prose, 0)
			h.group++
		}
	}
	if parting(a) {
		h.broken = false
	}
	if a == atom.P || a == atom.Div {
		h.hollow = len(h.pieces) + 1
	}
}

// blank notes an empty line.
func (h *htmlReader) blank() {
	h.text.Reset()
	h.add(piece{kind: gap, line: h.line, group: h.group})
}

// preformatted begins a block, which the end of the element ends.
func (h *htmlReader) preformatted(a atom.Atom) {
	h.flush(prose, 0)
	h.group++
	h.pre, h.preKind = 1, a
}

// keepsLines reports an element whose style says that its lines stand as they are written.
func keepsLines(token html.Token) bool {
	for _, a := range token.Attr {
		if a.Key == "style" && strings.Contains(strings.ReplaceAll(strings.ToLower(a.Val), " ", ""), "white-space:pre") {
			return true
		}
	}
	return false
}

// startWithin handles an element within preformatted text: one that stands on lines of its own begins a line.
func (h *htmlReader) startWithin(token html.Token) {
	text := h.text.String()
	switch a := token.DataAtom; {
	case a == h.preKind && token.Type == html.StartTagToken:
		h.pre++
		if parting(a) && text != "" && !strings.HasSuffix(text, "\n") {
			h.text.WriteString("\n")
		}
	case a == atom.Br:
		h.text.WriteString("\n")
	case parting(a):
		if text != "" && !strings.HasSuffix(text, "\n") {
			h.text.WriteString("\n")
		}
	case a == atom.Sup, a == atom.Sub:
		h.raised = true
	case token.Type == html.StartTagToken && (text == "" || strings.HasSuffix(text, "\n")):
		h.number = &lineNumber{element: a, from: len(text), named: countsLines(token)}
	}
}

func (h *htmlReader) end(token html.Token) {
	switch a := token.DataAtom; {
	case h.silent != 0:
		if a == h.silent {
			if h.deep--; h.deep < 0 {
				h.silent = 0
			}
		}
	case h.pre > 0 && a == h.preKind:
		if h.pre--; h.pre == 0 {
			h.flush(block, 0)
			h.group++
		} else if parting(a) && !strings.HasSuffix(h.text.String(), "\n") {
			h.text.WriteString("\n")
		}
	case h.pre > 0:
		if n := h.number; n != nil && n.element == a {
			h.number = nil
			text := h.text.String()
			if value, err := strconv.Atoi(strings.TrimSpace(text[n.from:])); err == nil {
				n.to, n.value = len(text), value
				h.numbers = append(h.numbers, *n)
			}
		}
		if parting(a) && !strings.HasSuffix(h.text.String(), "\n") {
			h.text.WriteString("\n")
		}
	case a == atom.B, a == atom.Strong:
		h.bold = max(0, h.bold-1)
	case a == atom.H1, a == atom.H2, a == atom.H3, a == atom.H4, a == atom.H5, a == atom.H6:
		h.flush(heading, int(token.Data[1]-'0'))
		h.group++
	case a == atom.Td, a == atom.Th:
		h.flush(prose, 0)
		h.group++
	case a == atom.Table:
		h.flush(prose, 0)
		h.group++
		if t := h.table(); t != nil {
			h.turn(t)
			h.tables = h.tables[:len(h.tables)-1]
		}
	case (a == atom.P || a == atom.Div) && h.hollow == len(h.pieces)+1 && (h.broken || strings.Contains(h.text.String(), "\u00a0")) && strings.TrimSpace(h.text.String()) == "":
		h.blank()
		h.broken, h.hollow = false, 0
	case parting(a):
		h.flush(prose, 0)
		h.group++
		h.broken = false
	}
	if h.silent == 0 && h.pre == 0 {
		h.leave(token.DataAtom)
	}
}

// parting reports elements that begin and end a paragraph.
func parting(a atom.Atom) bool {
	switch a {
	case atom.P, atom.Div, atom.Br, atom.Li, atom.Ul, atom.Ol, atom.Dl, atom.Dt, atom.Dd, atom.Section, atom.Article,
		atom.Header, atom.Footer, atom.Main, atom.Blockquote, atom.Hr, atom.Figure, atom.Caption, atom.Figcaption, atom.Details, atom.Summary,
		atom.H1, atom.H2, atom.H3, atom.H4, atom.H5, atom.H6, atom.Body, atom.Tbody, atom.Thead, atom.Aside, atom.Nav, atom.Center:
		return true
	}
	return false
}

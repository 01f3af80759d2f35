package intake

import (
	"bytes"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"
)

// htmlParts reads a page of HTML in reading order.
func htmlParts(text []byte) (parts []part, title string) {
	h := &htmlReader{line: 1, began: 1}
	z := html.NewTokenizer(bytes.NewReader(text))
	for {
		kind := z.Next()
		raw := bytes.Count(z.Raw(), []byte{'\n'})
		token := z.Token()
		switch kind {
		case html.ErrorToken:
			h.flush(prose)
			return h.parts, strings.TrimSpace(h.title)
		case html.TextToken:
			h.take(token.Data)
		case html.StartTagToken, html.SelfClosingTagToken:
			h.start(token)
		case html.EndTagToken:
			h.end(token)
		}
		h.line += raw
	}
}

// An htmlReader gathers text until an element ends it.
type htmlReader struct {
	parts  []part
	text   strings.Builder
	title  string
	line   int // of the token
	began  int // line at which the text began
	pre    int // depth of preformatted elements
	silent atom.Atom
	tables []*table
}

// A table is known by the heads of its columns.
type table struct {
	heads  []string
	column int
	row    int
	inHead bool
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
			text = strings.TrimPrefix(text, "\n")
		}
	}
	h.text.WriteString(text)
}

// flush ends the text that was gathered.
func (h *htmlReader) flush(kind partKind) {
	text := h.text.String()
	h.text.Reset()
	if kind != block {
		text = strings.Join(strings.Fields(text), " ")
		if text == "" {
			return
		}
	}
	p := part{kind: kind, text: text, line: h.began}
	if t := h.table(); t != nil {
		if kind == block && t.column <= len(t.heads) && t.column > 0 {
			p.label = t.heads[t.column-1]
		}
		if kind != block && (t.inHead || t.row == 1) && t.column > 0 {
			for len(t.heads) < t.column {
				t.heads = append(t.heads, "")
			}
			t.heads[t.column-1] = strings.TrimSpace(t.heads[t.column-1] + " " + text)
		}
	}
	h.parts = append(h.parts, p)
}

func (h *htmlReader) table() *table {
	if len(h.tables) == 0 {
		return nil
	}
	return h.tables[len(h.tables)-1]
}

func (h *htmlReader) start(token html.Token) {
	if h.pre > 0 {
		h.startWithin(token.DataAtom)
		return
	}
	switch token.DataAtom {
	case atom.Script, atom.Style, atom.Title, atom.Button, atom.Nav, atom.Noscript:
		if token.Type == html.StartTagToken && h.silent == 0 {
			h.silent = token.DataAtom
		}
	case atom.Pre:
		h.flush(prose)
		h.pre = 1
	case atom.Table:
		h.flush(prose)
		h.tables = append(h.tables, &table{})
	case atom.Tr:
		h.flush(prose)
		if t := h.table(); t != nil {
			t.column, t.row = 0, t.row+1
		}
	case atom.Td, atom.Th:
		h.flush(prose)
		if t := h.table(); t != nil {
			t.column++
			t.inHead = token.DataAtom == atom.Th
		}
	default:
		if parting(token.DataAtom) {
			h.flush(prose)
		}
	}
}

// startWithin handles an element within preformatted text: one that stands on
// lines of its own begins a line.
func (h *htmlReader) startWithin(a atom.Atom) {
	switch {
	case a == atom.Pre:
		h.pre++
	case a == atom.Br:
		h.text.WriteString("\n")
	case parting(a):
		if text := h.text.String(); text != "" && !strings.HasSuffix(text, "\n") {
			h.text.WriteString("\n")
		}
	}
}

func (h *htmlReader) end(token html.Token) {
	switch a := token.DataAtom; {
	case a == h.silent && a != 0:
		h.silent = 0
	case h.pre > 0 && a == atom.Pre:
		if h.pre--; h.pre == 0 {
			h.flush(block)
		}
	case h.pre > 0:
		if parting(a) && !strings.HasSuffix(h.text.String(), "\n") {
			h.text.WriteString("\n")
		}
	case a == atom.H1, a == atom.H2, a == atom.H3, a == atom.H4, a == atom.H5, a == atom.H6:
		h.flush(heading)
	case a == atom.Td, a == atom.Th:
		h.flush(prose)
	case a == atom.Table:
		h.flush(prose)
		if len(h.tables) > 0 {
			h.tables = h.tables[:len(h.tables)-1]
		}
	case parting(a):
		h.flush(prose)
	}
}

// parting reports elements that begin and end a paragraph.
func parting(a atom.Atom) bool {
	switch a {
	case atom.P, atom.Div, atom.Br, atom.Li, atom.Ul, atom.Ol, atom.Dl, atom.Dt, atom.Dd, atom.Section, atom.Article,
		atom.Header, atom.Footer, atom.Main, atom.Blockquote, atom.Hr, atom.Figure, atom.Caption, atom.Figcaption, atom.Details, atom.Summary,
		atom.H1, atom.H2, atom.H3, atom.H4, atom.H5, atom.H6, atom.Body, atom.Tbody, atom.Thead:
		return true
	}
	return false
}

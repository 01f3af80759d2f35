package statement

import (
	"slices"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"
)

// A lineNumber is an element at the beginning of a line of preformatted text that holds a number only.
type lineNumber struct {
	element  atom.Atom
	from, to int  // where it stands in the text, in bytes
	value    int  // what it holds
	named    bool // the page says that it is no part of the text
}

// countsLines reports an element that a page marks as the number of a line.
func countsLines(token html.Token) bool {
	for _, a := range token.Attr {
		switch a.Key {
		case "class":
			for _, word := range strings.FieldsFunc(strings.ToLower(a.Val), func(r rune) bool { return r == ' ' || r == '-' || r == '_' }) {
				switch word {
				case "ln", "lno", "lineno", "linenos", "linenumber", "linenumbers", "gutter":
					return true
				}
			}
			if named := strings.ToLower(a.Val); strings.Contains(named, "line") && strings.Contains(named, "num") {
				return true
			}
		case "style":
			if strings.Contains(strings.ReplaceAll(a.Val, " ", ""), "user-select:none") {
				return true
			}
		}
	}
	return false
}

// unnumbered takes the numbers of lines out of a block, where they are 1, 2, 3, … before every line and the page says
// what they are. Where it does not say so, they stay, and are doubted.
func (p *piece) unnumbered(numbers []lineNumber) {
	lines := strings.Split(strings.TrimRight(p.text, "\n"), "\n")
	named := slices.ContainsFunc(numbers, func(n lineNumber) bool { return n.named })
	counted, bare, at := len(numbers) == len(lines), true, 0
	for i, line := range lines {
		if !counted {
			break
		}
		n := numbers[i]
		counted = n.from == at && n.value == i+1 && n.to <= at+len(line)
		bare = bare && strings.TrimSpace(line) == itoa(n.value)
		at += len(line) + 1
	}
	switch {
	case counted && named && !bare:
		for _, n := range slices.Backward(numbers) {
			p.text = p.text[:n.from] + p.text[n.to:]
		}
	case named, counted && !bare:
		p.doubts = append(p.doubts, "its lines begin with numbers in print of their own, which may be those of the lines")
	}
}

package compare

import (
	"bytes"
	"strings"
	"unicode/utf8"

	"coldverdict/core/verdict"
)

// How much of the surroundings of a difference is kept.
const (
	linesBefore = 3
	linesAfter  = 4
	lineWidth   = 240 // characters of a line, around the difference
	tokenWidth  = 120 // characters of a token
)

// difference describes a mismatch, reading on a little in both texts.
func (m *mismatch) difference(want, got *text) *verdict.Difference {
	d := &verdict.Difference{
		Line: m.got.line + 1, Column: m.got.column + 1, Reason: m.reason, Kind: kindOf(m.reason),
		ExpectedSide: want.excerpt(m.want),
		GotSide:      got.excerpt(m.got),
	}
	if m.atEnd {
		d.Line, d.Column = m.want.line+1, m.want.column+1
	}
	if m.amount {
		d.Kind = verdict.InAmount
	}
	d.Expected, d.Got = token(d.ExpectedSide), token(d.GotSide)
	sharpen(d)
	return d
}

// excerpt returns the lines around a place that t has come to, or has just
// passed.
func (t *text) excerpt(at place) verdict.Excerpt {
	known := bytes.Clone(t.last)
	first := t.line - bytes.Count(known, []byte{'\n'})
	start := 0 // characters cut off before known, in its first line
	if !bytes.Contains(known, []byte{'\n'}) {
		start = max(0, t.column-utf8.RuneCount(known))
	}
	ahead := t.peek(memory)
	known = append(known, ahead...)
	lines := strings.Split(string(known), "\n")
	whole := len(t.peek(memory+1)) <= memory
	e := verdict.Excerpt{FirstLine: first + 1, Column: at.column + 1, AtStart: !t.forgot}
	if t.forgot && len(lines) > 1 && at.line > first {
		lines = lines[1:] // its beginning was forgotten
		e.FirstLine++
		start = 0
	}
	if whole && lines[len(lines)-1] == "" {
		lines = lines[:len(lines)-1]
	}
	mark := min(max(0, at.line+1-e.FirstLine), len(lines))
	from, to := max(0, mark-linesBefore), min(len(lines), mark+linesAfter+1)
	e.AtStart = e.AtStart && from == 0
	e.AtEnd = whole && to == len(lines)
	for i := from; i < to; i++ {
		cutOff := 0
		if i == 0 {
			cutOff = start
		}
		column := 0
		if i == mark {
			column = at.column - cutOff
		}
		line, left := window(lines[i], column)
		e.Lines = append(e.Lines, line)
		e.Starts = append(e.Starts, left+cutOff)
	}
	e.FirstLine += from
	e.Mark = mark - from
	return e
}

// OneLine is an excerpt of a text that is not laid out in lines, marked at an
// offset in bytes.
func OneLine(text string, at int) verdict.Excerpt {
	column := utf8.RuneCountInString(text[:at])
	line, left := window(text, column)
	return verdict.Excerpt{Lines: []string{line}, Starts: []int{left}, Column: column + 1, AtStart: true, AtEnd: true}
}

// window cuts a long line around a column, and returns how many characters
// were cut off at its left.
func window(line string, column int) (string, int) {
	if utf8.RuneCountInString(line) <= lineWidth {
		return line, 0
	}
	left := max(0, column-lineWidth/2)
	at, end, n := len(line), len(line), 0
	for i := range line {
		if n == left {
			at = i
		}
		if n == left+lineWidth {
			end = i
			break
		}
		n++
	}
	return line[at:end], min(left, n)
}

// token returns the word at the marked place of an excerpt; it is empty where
// that line has ended.
func token(e verdict.Excerpt) string {
	line, at, ok := markedLine(e)
	for ok && at < len(line) && !visible(line, at) {
		at++
	}
	if !ok || at == len(line) {
		return ""
	}
	return wordAround(line, at)
}

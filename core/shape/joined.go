package shape

import (
	"slices"
	"strconv"
	"strings"
)

// Values and texts may be joined on a line, with no blank between: "x=" & x: int -9..9 & ", y=" & y: int -9..9.
// What is read of a value then ends where the text behind it begins, which therefore cannot begin with what the value
// may hold.

// joins reports what cannot be joined on a line.
func (p *parser) joins(l *lineNode) {
	for i, f := range l.Fields {
		after := i+1 < len(l.Fields) && l.Fields[i+1].Joined
		switch v := f.Value; {
		case !f.Joined && !after:
			if v == nil && !plainWords(f.Literal) {
				p.fatal(f.Pos, "a string is a token that stands in the input as it is; it can neither begin or end with a blank, nor have two in a row")
			}
		case p.s.takes != nil:
			p.fatal(f.Pos, "arguments are not joined; put a comma in place of &")
		case v == nil:
			inner := f.Literal
			if f.Joined {
				inner = strings.TrimPrefix(inner, " ")
			}
			if after {
				inner = strings.TrimSuffix(inner, " ")
			}
			if inner != "" && !plainWords(inner) {
				p.fatal(f.Pos, "a string neither begins nor ends a line with a blank, nor has it two in a row")
			}
		case len(v.Dims) > 0 || !v.traits().element || v.Base == typeText:
			p.fatal(f.Pos, "only single values of int, real, token and pick are joined by &")
		case f.Joined && l.Fields[i-1].Value != nil:
			p.fatal(f.Pos, "where one value ends and the next begins cannot be told; put a string between them: & \"-\" &")
		case after && l.Fields[i+1].Value == nil && v.mayHold(l.Fields[i+1].Literal[0]):
			p.fatal(l.Fields[i+1].Pos, "%q begins with what can stand in the value before it, so that nobody can tell where that ends", l.Fields[i+1].Literal)
		}
	}
}

// mayHold reports whether a byte may stand in a single value.
func (v *valueNode) mayHold(b byte) bool {
	digit := b >= '0' && b <= '9'
	switch v.Base {
	case typeInt:
		return digit || b == '-' && v.Pad > 0
	case typeReal:
		return digit || b == '.' || b == '-'
	case typePick:
		return v.Range != nil && (digit || b == '-') || slices.ContainsFunc(v.Picks, func(one string) bool { return strings.IndexByte(one, b) >= 0 })
	}
	return b != ' ' && (b >= 128 || v.Set == nil || v.Set.Has(rune(b)))
}

// exactly reads a text that stands there as it is, blanks and all.
func (c *checker) exactly(text string, first, joined bool) {
	if joined {
		c.nth++
	} else {
		c.begin(first)
	}
	for i := range len(text) {
		if next := c.peek(); next != int(text[i]) {
			c.fault("", "expected %q, found %s", text, c.found())
		}
		c.at++
	}
}

// padded reads an integer with zeros before it, so that it has so many digits at the least.
func (r *valueReader) padded(digits int) int64 {
	word := string(r.token())
	n, err := strconv.ParseInt(word, 10, 64)
	switch want := string(appendPadded(nil, n, digits)); {
	case err != nil:
		r.fault(r.name(), "expected an integer%s with %d digits, found %s", named(r.name()), digits, shown(word, r.scanner))
	case want != word:
		r.fault(r.name(), "%s is %s, and is written %s", orThis(r.name()), word, want)
	}
	return n
}

// appendPadded writes an integer with zeros before it.
func appendPadded(text []byte, n int64, digits int) []byte {
	if digits == 0 {
		return strconv.AppendInt(text, n, 10)
	}
	word := strconv.FormatInt(n, 10)
	if n < 0 {
		text, word = append(text, '-'), word[1:]
	}
	for range digits - len(word) {
		text = append(text, '0')
	}
	return append(text, word...)
}

package shape

import (
	"slices"
	"strconv"
	"strings"
)

// The elements of an array on one line may have something else between them than a blank: int[1..9] 0..99 by ",".

// separated reads such an array.
func (c *checker) separated(field *fieldNode, d *datum, f *frame, first bool) bool {
	v := field.Value
	var pieces []string
	if next := c.peek(); next != '\n' && next != -1 {
		c.begin(first)
		first = false
		read := c.token
		if strings.Contains(v.By, " ") {
			read = c.rest
		}
		pieces = strings.Split(string(read()), v.By)
	}
	least, most := v.Dims[0].bounds(f)
	if n := int64(len(pieces)); n < max(0, least) || n > max(0, most) {
		c.fault(field.Name, "%s has %d elements, and has %s", orThis(field.Name), n, v.Dims[0].shown(least, most))
	}
	r := c.reader(field, f)
	for i, piece := range pieces {
		r.index = int64(i)
		switch v.Base {
		case typeInt:
			n, err := strconv.ParseInt(piece, 10, 64)
			if err != nil || strconv.FormatInt(n, 10) != piece {
				r.fault(r.name(), "expected an integer for %s, found %q between %q", orThis(r.name()), piece, v.By)
			}
			r.took(d, n, int64(i))
		case typePick:
			r.picked(d, piece)
		default:
			r.characters(d, []byte(piece))
		}
	}
	d.count = int64(len(pieces))
	c.ordered(field, d, f, func(int) {})
	return first
}

// separated writes it.
func (w *writer) separated(v *valueNode, d *datum, first bool) bool {
	if d.size() == 0 {
		return first
	}
	w.blank(first)
	for i := range d.size() {
		if i > 0 {
			w.text = append(w.text, v.By...)
		}
		w.value(d, i)
	}
	return false
}

// separator reads what stands between elements, behind by.
func (p *parser) separator(v *valueNode) {
	if p.now.kind != tokenString || p.now.text == "" {
		p.fatal(p.now.pos, "expected what stands between two elements, such as by \",\"; found %s", p.now)
	}
	t := p.advance()
	v.By = t.text
	switch {
	case strings.ContainsAny(v.By, "\n\t"):
		p.fatal(t.pos, "what stands between two elements has no tab and no line end")
	case v.By == " ":
		p.fatal(t.pos, "a blank stands between elements anyway; leave by out")
	case (v.Base == typeInt || v.Range != nil) && (strings.ContainsAny(v.By, "0123456789") || v.By == "-"):
		p.fatal(t.pos, "%q can stand in an integer; put something else between them", v.By)
	case v.Set != nil && slices.ContainsFunc([]rune(v.By), v.Set.Has):
		p.fatal(t.pos, "%q can stand in an element; take it out of the set, or put something else between them", v.By)
	case slices.ContainsFunc(v.Picks, func(one string) bool { return strings.Contains(one, v.By) }):
		p.fatal(t.pos, "%q stands in a token; put something else between them", v.By)
	}
}

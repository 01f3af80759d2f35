package shape

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/value"
)

// An argument of a function may be rows that are described one by one, of different lengths or with fields that depend
// on each other: spans: rows(1..1e4) { from: int 0..9, to: int from..9 }. Within this package they are the bodies of a
// repeat, a line each.

// A parameter describes an argument: a field, or rows.
type parameter struct {
	*fieldNode             // nil: rows
	rows       *repeatNode // nil: a field
}

// rowsFollow reports that the next field is described by rows.
func (p *parser) rowsFollow() bool {
	if p.s.takes == nil || !p.colonFollows() {
		return false
	}
	ahead := p.lexer
	ahead.report = func(Pos, string, ...any) {}
	ahead.next()
	return ahead.next().text == "rows"
}

// rowsOf reads an argument of rows.
func (p *parser) rowsOf() node {
	pos := p.now.pos
	name := p.advance().text
	p.advance()
	p.advance()
	p.expect("(", "behind rows")
	r := &repeatNode{Pos: pos, rows: name, Count: p.length()}
	p.expect(")", "behind the number of rows")
	r.Distinct = p.take("distinct")
	p.block("the rows", func() {
		p.directly(true, func() { r.Items = p.items(func() bool { return p.total(&r.Totals) }) })
	})
	return r
}

// row are the fields of a row, in order.
func (item *repeatNode) row() (fields []*fieldNode) {
	for _, one := range item.Items {
		if l, ok := one.(*lineNode); ok {
			fields = append(fields, l.Fields...)
		}
	}
	return fields
}

// rowsArgument takes rows for the argument that is named so.
func (p *parser) rowsArgument(item *repeatNode) {
	i := slices.IndexFunc(p.s.takes, func(t value.Field) bool { return t.Name == item.rows })
	switch {
	case i < 0:
		p.wrong(item.Pos, "the function has no argument %s", item.rows)
		return
	case p.s.params[i] != nil:
		p.wrong(item.Pos, "there is a field for the argument %s above", item.rows)
		return
	}
	p.s.params[i] = &parameter{rows: item}
	of, arrays := strings.CutSuffix(plainType(p.s.takes[i].Type), "[][]")
	if !arrays || strings.HasSuffix(of, "]") {
		p.wrong(item.Pos, "%s is rows, and the function takes %s", item.rows, p.s.takes[i].Type)
		return
	}
	var lines []*lineNode
	for _, one := range item.Items {
		switch one := one.(type) {
		case *lineNode:
			lines = append(lines, one)
		case *requireNode:
		default:
			p.wrong(placeOf(one), "a row has fields, and require")
		}
	}
	if len(lines) > 1 { // a row is a line
		lines[0].Fields = item.row()
		item.Items = slices.DeleteFunc(item.Items, func(one node) bool { return slices.Contains(lines[1:], asLine(one)) })
	}
	fields := item.row()
	for k, f := range fields {
		switch {
		case f.Value == nil || f.Joined:
			p.wrong(f.Pos, "a token in quotes is no element")
		case len(f.Value.Dims) > 1 || len(f.Value.Dims) == 1 && (k < len(fields)-1 || f.Value.Down):
			p.wrong(f.Pos, "an array in a row is the last of its fields, and has one dimension")
		case f.Value.Base == typeText || f.Value.Base == typeToken && (f.Value.Set.Has(' ') || f.Value.Length.mayBeZero()):
			p.wrong(f.Value.Pos, "texts in rows are tokens of one character at the least, without blanks")
		case !slices.Contains(f.Value.types(), of+strings.Repeat("[]", len(f.Value.Dims))):
			p.wrong(f.Value.Pos, "this is %s, and the rows hold %s", strings.Join(f.Value.types(), " or "), of)
		}
	}
}

func asLine(item node) *lineNode {
	l, _ := item.(*lineNode)
	return l
}

// name is that of the argument.
func (p *parameter) name() string {
	if p.rows != nil {
		return p.rows.rows
	}
	return p.Name
}

func (p *parameter) lengthsFrom(count string) (list []lengthFrom) {
	if p.rows == nil {
		return p.fieldNode.lengthsFrom(count)
	}
	if e := p.rows.Count.Exact; e != nil {
		if more, ok := plainlyMore(e, count); ok {
			list = append(list, lengthFrom{elementsOf, -more})
		}
	}
	return list
}

// argument is what the function takes.
func (p *parameter) argument(top *frame, t value.Type) any {
	if p.rows == nil {
		return p.fieldNode.argument(top, t)
	}
	rows := []any{}
	for _, body := range top.data[p.rows.slot].bodies {
		row := []any{}
		for _, f := range p.rows.row() {
			switch one := f.argument(body, t).(type) {
			case []any:
				row = append(row, one...)
			default:
				row = append(row, one)
			}
		}
		rows = append(rows, row)
	}
	return rows
}

// take puts an argument into a frame, and returns what it cannot be.
func (p *parameter) take(top *frame, arg any, actual map[*lengthNode]int64) (wrong string) {
	if p.rows == nil {
		return p.fieldNode.take(top, arg, actual)
	}
	list, ok := arg.([]any)
	if !ok {
		return p.name() + " is null, and has a value here"
	}
	actual[p.rows.Count] = int64(len(list))
	fields := p.rows.row()
	for i, one := range list {
		row, ok := one.([]any)
		name := fmt.Sprintf("%s[%d]", p.name(), i)
		if !ok {
			return name + " is null, and has a value here"
		}
		body := newFrame(p.rows.body, top)
		for k, f := range fields {
			d := &body.data[f.slot]
			if len(f.Value.Dims) == 0 && k >= len(row) || k == len(fields)-1 && len(f.Value.Dims) == 0 && len(row) > len(fields) {
				return fmt.Sprintf("%s has %d elements, and has %d", name, len(row), len(fields))
			}
			of := row[k:]
			if len(f.Value.Dims) == 0 {
				of = row[k : k+1]
			}
			for j, cell := range of {
				if wrong := f.takeOne(d, cell, fmt.Sprintf("%s[%d]", name, k+j)); wrong != "" {
					return wrong
				}
			}
			d.count = int64(len(of))
			if e := f.Value.Dims; len(e) > 0 {
				if wrong := e[0].wrong(body, d.count); wrong != "" {
					return fmt.Sprintf("%s has %d elements%s, and has %s", name, d.count, map[bool]string{true: " behind the first " + fmt.Sprint(k)}[k > 0], wrong)
				}
			}
		}
		top.data[p.rows.slot].bodies = append(top.data[p.rows.slot].bodies, body)
	}
	return ""
}

// wrong is what a length is, where it is known and another one; empty: it is as it is.
func (l *lengthNode) wrong(f *frame, have int64) string {
	if l.Exact != nil {
		if n, unknown := evaluated(l.Exact, f); unknown == nil && max(0, n) != have {
			return fmt.Sprintf("%d (%s)", max(0, n), l.Exact)
		}
		return ""
	}
	low, unknown := evaluated(l.Range.Low, f)
	high, unknown2 := evaluated(l.Range.High, f)
	if unknown == nil && unknown2 == nil && (have < low || have > high) {
		return l.Range.shown(low, high)
	}
	return ""
}

// wrongLength says that an argument has not as many elements as it must have.
func (p *parameter) wrongLength(top *frame, arg any) string {
	if p.rows == nil {
		return p.fieldNode.wrongLength(top, arg)
	}
	have := int64(len(arg.([]any)))
	if wrong := p.rows.Count.wrong(top, have); wrong != "" {
		return fmt.Sprintf("%s has %d rows, and has %s", p.name(), have, wrong)
	}
	return ""
}

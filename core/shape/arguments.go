package shape

import (
	"errors"
	"fmt"
	"io"
	"math/big"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// ParseArguments reads a shape of a function problem: its fields, in order, are the
// arguments that the function takes. Nothing is laid out in lines; lengths may be
// ranges, words, texts and grids are texts and arrays of them, and trees and graphs
// are arrays of edges. The error is a Mistakes.
func ParseArguments(text string, takes []value.Field) (*Shape, error) { return parse(text, takes) }

// asArguments makes each field an item of its own, and reports what cannot be an
// argument.
func (p *parser) asArguments() {
	var items []node
	var fields []*fieldNode
	for _, item := range p.s.Items {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				fields = append(fields, f)
				items = append(items, &lineNode{f.Pos, []*fieldNode{f}})
			}
		case *requireNode, *scaleItem:
			items = append(items, item)
		default:
			p.wrong(placeOf(item), "a function has no lines; its shape has a field for each argument, and require")
		}
	}
	p.s.Items = items
	for i, f := range fields {
		switch {
		case f.Value == nil:
			p.wrong(f.Pos, "a token in quotes is no argument")
		case i >= len(p.s.takes):
			p.wrong(f.Pos, "the function takes no argument behind %s", p.s.takes[len(p.s.takes)-1].Name)
		case f.Name != p.s.takes[i].Name:
			p.wrong(f.Pos, "the argument %d of the function is %s; name this field so", i+1, p.s.takes[i].Name)
		default:
			if of := f.Value.types(); !slices.Contains(of, plainType(p.s.takes[i].Type)) {
				p.wrong(f.Value.Pos, "%s is %s, and the function takes %s", f.Name, strings.Join(of, " or "), p.s.takes[i].Type)
			}
			// On a line of its own each keeps its blanks.
			f.Value.Down = f.Value.Down || len(f.Value.Dims) == 1 && (f.Value.Base == typeWord || f.Value.Base == typeText)
		}
	}
	if n := len(fields); n < len(p.s.takes) && len(p.mistakes) == 0 {
		p.wrong(Pos{1, 1}, "there is no field for the argument %s", p.s.takes[n].Name)
	}
}

func placeOf(item node) Pos {
	switch item := item.(type) {
	case *casesNode:
		return item.Pos
	case *repeatNode:
		return item.Pos
	case *eitherNode:
		return item.Pos
	case *blankNode:
		return item.Pos
	}
	return Pos{1, 1}
}

// plainType is a type as it is written, without what may be absent.
func plainType(t value.Type) string { return strings.ReplaceAll(t.String(), "?", "") }

// types are those of arguments that a value can be.
func (v *valueNode) types() []string {
	of, arrays := v.Base.of().types(v)
	if v.traits().element {
		arrays = len(v.Dims)
	}
	for i := range of {
		of[i] += strings.Repeat("[]", arrays)
	}
	return of
}

// Arguments returns the input as a function takes it, as package value has values;
// nil if the shape is of lines.
func (in *Input) Arguments() (args []any) {
	for i, f := range in.shape.fields() {
		args = append(args, f.argument(in.top, in.shape.takes[i].Type))
	}
	return args
}

// fields are those of a function's arguments.
func (s *Shape) fields() (list []*fieldNode) {
	if s.takes == nil {
		return nil
	}
	for _, item := range s.Items {
		if line, ok := item.(*lineNode); ok {
			list = append(list, line.Fields[0])
		}
	}
	return list
}

func (f *fieldNode) argument(top *frame, t value.Type) any {
	element, _ := t.Element()
	return f.assembled(top, func(f *fieldNode, d *datum, i int) any {
		if len(d.texts) > 0 {
			return argumentOf(d.texts[i], element.Kind)
		}
		return d.ints[i]
	})
}

// argumentOf makes a token a value of a kind.
func argumentOf(text string, kind value.Kind) any {
	switch kind {
	case value.Int, value.Long, value.BigInt:
		if n, err := strconv.ParseInt(text, 10, 64); err == nil {
			return n
		}
	case value.Real:
		if x, err := strconv.ParseFloat(text, 64); err == nil {
			return x
		}
	case value.Bool:
		return text == "true"
	}
	return text
}

// appendCall writes arguments as the case of a function has them.
func (in *Input) appendCall(dst []byte) []byte {
	for i, arg := range in.Arguments() {
		dst = append(dst, in.shape.takes[i].Name+": "...)
		dst = append(value.Append(dst, arg, true), '\n')
	}
	return dst
}

// mostArguments bounds the arguments of one call that are read, in bytes.
const mostArguments = 256 << 20

// readCall reads the arguments of a call and checks them against the shape.
func (s *Shape) readCall(in io.Reader) (top *frame, fault *Fault, err error) {
	text, err := io.ReadAll(io.LimitReader(in, mostArguments))
	if err != nil {
		return nil, nil, err
	}
	args, err := value.ReadCall(string(text), s.takes)
	var mistake *value.Mistake
	if errors.As(err, &mistake) {
		line := 1 + strings.Count(string(text[:min(mistake.Offset, len(text))]), "\n")
		return nil, &Fault{Line: line, Text: mistake.Error()}, nil
	}
	if err != nil {
		return nil, nil, err
	}
	top = newFrame(s.top, nil)
	actual := map[*lengthNode]int64{}
	for i, f := range s.fields() {
		wrong := f.take(top, args[i], actual)
		if wrong == "" {
			wrong = f.wrongLength(top)
		}
		if wrong != "" {
			return nil, &Fault{Line: i + 1, Name: f.Name, Text: wrong}, nil
		}
	}
	// Laid out in lines, it is read as any other input.
	w := &writer{}
	w.items(s.Items, top)
	c := &checker{scanner: newScanner(strings.NewReader(string(w.text)), false), keep: true, actual: actual}
	lines := s.linesOf(top)
	top, fault, err = s.readFrom(c)
	if fault != nil {
		fault.Line, fault.Nth = lines(fault.Line), 0
	}
	return top, fault, err
}

// linesOf returns which argument a line is of, when they are laid out in lines.
func (s *Shape) linesOf(top *frame) func(line int) int {
	var ends []int
	for _, f := range s.fields() {
		w := &writer{}
		w.line(&lineNode{Fields: []*fieldNode{f}}, top)
		last := 0
		if len(ends) > 0 {
			last = ends[len(ends)-1]
		}
		ends = append(ends, last+strings.Count(string(w.text), "\n"))
	}
	return func(line int) int {
		for i, end := range ends {
			if line <= end {
				return i + 1
			}
		}
		return len(ends)
	}
}

// wrongLength says that an argument has not as many elements as it must have.
func (f *fieldNode) wrongLength(top *frame) string {
	v, have := f.Value, top.data[f.slot].count
	var want exprNode
	switch {
	case len(v.Dims) > 0 && v.Dims[0].Range != nil:
		low, wrong := evaluated(v.Dims[0].Range.Low, top)
		high, wrong2 := evaluated(v.Dims[0].Range.High, top)
		if wrong == nil && wrong2 == nil && (have < low || have > high) {
			return fmt.Sprintf("%s has %d elements, and has %s", f.Name, have, v.Dims[0].Range.shown(low, high))
		}
		return ""
	case len(v.Dims) > 0:
		want = v.Dims[0].Exact
	case v.Base == typePerm, v.Base == typeGraph:
		want = v.Args[len(v.Args)-1]
	case v.Base == typeTree, v.Base == typeParents:
		want = &binary{op: "-", x: v.Args[0], y: &number{value: 1}}
	default:
		return ""
	}
	if n, wrong := evaluated(want, top); wrong == nil && max(0, n) != have {
		return fmt.Sprintf("%s has %d elements, and has %d (%s)", f.Name, have, max(0, n), want)
	}
	return ""
}

// take puts an argument into a frame, and returns what it cannot be.
func (f *fieldNode) take(top *frame, arg any, actual map[*lengthNode]int64) (wrong string) {
	v, d := f.Value, &top.data[f.slot]
	if arg == nil {
		return f.Name + " is null, and has a value here"
	}
	if v.traits().edges {
		return f.takeEdges(top, arg.([]any))
	}
	list, many := arg.([]any)
	if !many {
		return f.takeOne(d, arg, f.Name)
	}
	d.count = int64(len(list))
	if len(v.Dims) > 0 {
		actual[v.Dims[0]] = d.count
	}
	for i, one := range list {
		name := fmt.Sprintf("%s[%d]", f.Name, i)
		row, nested := one.([]any)
		if !nested {
			if text, ok := one.(string); ok && v.Base == typeGrid {
				if n := runes([]byte(text)); i > 0 && n != actual[v.Dims[1]] {
					return fmt.Sprintf("%s has %d characters, and %s[0] has %d", name, n, f.Name, actual[v.Dims[1]])
				} else {
					actual[v.Dims[1]] = n
				}
			}
			if wrong := f.takeOne(d, one, name); wrong != "" {
				return wrong
			}
			continue
		}
		if i > 0 && int64(len(row)) != actual[v.Dims[1]] {
			return fmt.Sprintf("%s has %d elements, and %s[0] has %d", name, len(row), f.Name, actual[v.Dims[1]])
		}
		actual[v.Dims[1]] = int64(len(row))
		for j, cell := range row {
			if wrong := f.takeOne(d, cell, fmt.Sprintf("%s[%d]", name, j)); wrong != "" {
				return wrong
			}
		}
	}
	return ""
}

func (f *fieldNode) takeEdges(top *frame, list []any) string {
	v, d := f.Value, &top.data[f.slot]
	d.count = int64(len(list))
	for i, one := range list {
		edge, _ := one.([]any)
		if len(edge) != 2+len(v.With) {
			return fmt.Sprintf("%s[%d] has %d numbers, and has %d", f.Name, i, len(edge), 2+len(v.With))
		}
		for k, x := range edge {
			into := d
			if k > 1 {
				into = &top.data[v.With[k-2].slot]
			}
			if wrong := f.takeOne(into, x, fmt.Sprintf("%s[%d][%d]", f.Name, i, k)); wrong != "" {
				return wrong
			}
		}
	}
	return ""
}

// takeOne puts a single value into a datum. Texts are looked at here, since what
// does not belong in one would not stay in its line.
func (f *fieldNode) takeOne(d *datum, arg any, name string) (wrong string) {
	v := f.Value
	switch x := arg.(type) {
	case nil:
		return name + " is null, and has a value here"
	case int64:
		if v.Base == typePick {
			d.texts = append(d.texts, strconv.FormatInt(x, 10))
			return ""
		}
		d.ints = append(d.ints, x)
	case *big.Int:
		return fmt.Sprintf("%s is past 64 bits", name)
	case bool:
		d.texts = append(d.texts, strconv.FormatBool(x))
	case float64:
		d.texts = append(d.texts, strconv.FormatFloat(x, 'f', max(v.Places, -1), 64))
	case string:
		for _, r := range x {
			if v.Set != nil && !v.Set.Has(r) {
				return fmt.Sprintf("%s holds %q, which is not in %q", name, r, v.Set.Text)
			}
		}
		if v.Base == typePick && !slices.Contains(v.Picks, x) {
			return fmt.Sprintf("%s is %q, and none of %s; %s", name, x, strings.Join(v.Picks, ", "), settings.Nearest(x, v.Picks))
		}
		d.texts = append(d.texts, x)
	}
	if len(v.Dims) == 0 && d.count == 0 {
		d.count = 1
	}
	return ""
}

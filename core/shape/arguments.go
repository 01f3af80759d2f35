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

// ParseArguments reads a shape of a function problem: its fields are the
// arguments that the function takes, by their names. Nothing is laid out in lines; lengths may be
// ranges, words, texts and grids are texts and arrays of them, and trees and graphs
// are arrays of edges. A field that no argument is named after is a count: how many
// elements an argument has. The error is a Mistakes.
func ParseArguments(text string, takes []value.Field) (*Shape, error) {
	return parse(&Shape{text: text, takes: takes})
}

// asArguments makes each field an item of its own, and reports what cannot be an
// argument.
func (p *parser) asArguments() {
	var items []node
	var fields []*fieldNode
	var rows []*repeatNode
	for _, item := range p.s.Items {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				if f.Value != nil && f.Value.Edges != nil {
					count := f.edgeCount()
					fields = append(fields, count)
					items = append(items, &lineNode{f.Pos, []*fieldNode{count}})
				}
				fields = append(fields, f)
				items = append(items, &lineNode{f.Pos, []*fieldNode{f}})
			}
		case *requireNode, *scaleItem, *holdsNode:
			items = append(items, item)
		case *repeatNode:
			if items = append(items, item); item.rows != "" {
				rows = append(rows, item)
				continue
			}
			p.wrong(item.Pos, "a function has no lines; rows of an argument are written name: rows(1..9) { … }")
		default:
			p.wrong(placeOf(item), "a function has no lines; its shape has a field for each argument, and require")
		}
	}
	p.s.Items = items
	p.s.params = make([]*parameter, len(p.s.takes))
	for _, f := range fields {
		p.asArgument(f)
	}
	for _, item := range rows {
		p.rowsArgument(item)
	}
	p.counted()
}

// edgeCount is a count of the edges of an argument, which nothing in the shape has a name for.
func (f *fieldNode) edgeCount() *fieldNode {
	count := &fieldNode{Pos: f.Pos, Name: f.Name + "-edges", Value: &valueNode{Pos: f.Pos, Base: typeInt, Places: -1, Range: f.Value.Edges}}
	f.Value.Args[1] = &reference{pos: f.Pos, name: count.Name}
	return count
}

// asArgument takes a field for the argument that is named so, or for a count.
func (p *parser) asArgument(f *fieldNode) {
	i := slices.IndexFunc(p.s.takes, func(t value.Field) bool { return t.Name == f.Name })
	switch {
	case f.Value == nil:
		p.wrong(f.Pos, "a token in quotes is no argument")
	case i >= 0 && p.s.params[i] != nil:
		p.wrong(f.Pos, "there is a field for the argument %s above", f.Name)
	case i >= 0:
		f.nodes = nodesIn(p.s.takes[i].Type)
		if of := f.Value.types(); !slices.Contains(of, plainType(p.s.takes[i].Type)) {
			p.wrong(f.Value.Pos, "%s is %s, and the function takes %s", f.Name, strings.Join(of, " or "), p.s.takes[i].Type)
		}
		if v := f.Value; f.nodes == value.Nary && (v.Sorted || v.Rising) {
			p.wrong(v.Pos, "only a tree with a left and a right child is sorted or rising")
		}
		// On a line of its own each keeps its blanks.
		f.Value.Down = f.Value.Down || len(f.Value.Dims) == 1 && (f.Value.Base == typeToken || f.Value.Base == typeText)
		p.s.params[i] = &parameter{fieldNode: f}
	default: // whether it counts something is looked at when all are known
		p.s.counts = append(p.s.counts, f)
	}
}

// counted reports the fields that are neither an argument nor counted by one, and the arguments
// without a field.
func (p *parser) counted() {
	missing := slices.Index(p.s.params, nil)
	for _, f := range p.s.counts {
		counts := f.Name != "" && f.Value.Base == typeInt && len(f.Value.Dims) == 0
		switch {
		case counts && slices.ContainsFunc(p.s.params, func(param *parameter) bool { return param != nil && len(param.lengthsFrom(f.Name)) > 0 }):
		case missing >= 0:
			p.wrong(f.Pos, "the argument %d of the function is %s; name this field so", missing+1, p.s.takes[missing].Name)
		case counts:
			p.wrong(f.Pos, "%s is no argument of the function, and no argument has %s elements", f.Name, f.Name)
		default:
			p.wrong(f.Pos, "the function has no argument for this field")
		}
	}
	if missing >= 0 && len(p.mistakes) == 0 {
		p.wrong(Pos{1, 1}, "there is no field for the argument %s", p.s.takes[missing].Name)
	}
}

// A lengthFrom says that a count is so much more than a length of an argument.
type lengthFrom struct {
	of   func(arg any) (length int64, ok bool)
	more int64
}

func elementsOf(arg any) (int64, bool) {
	list, ok := arg.([]any)
	return int64(len(list)), ok
}

func firstElementsOf(arg any) (int64, bool) {
	list, ok := arg.([]any)
	if !ok || len(list) == 0 {
		return 0, false
	}
	return charactersOf(list[0])
}

func charactersOf(arg any) (int64, bool) {
	if text, ok := arg.(string); ok {
		return runes([]byte(text)), true
	}
	return elementsOf(arg)
}

// lengthsFrom lists from which lengths of an argument a count follows.
func (f *fieldNode) lengthsFrom(count string) (list []lengthFrom) {
	v := f.Value
	offer := func(e exprNode, less int64, of func(any) (int64, bool)) {
		if more, ok := plainlyMore(e, count); ok {
			list = append(list, lengthFrom{of, less - more})
		}
	}
	if f.nodes == value.Graph {
		offer(v.Args[0], 0, elementsOf)
		if len(v.Args) > 1 {
			offer(v.Args[1], 0, edgesIn(v.Directed))
		}
		return list
	}
	if v.Base == typeNodes {
		if v.Dims[0].Exact != nil {
			offer(v.Dims[0].Exact, 0, nodesAmong)
		}
		return list
	}
	dims := func(lengths []*lengthNode, of ...func(any) (int64, bool)) {
		for i, l := range lengths {
			if l != nil && l.Exact != nil {
				offer(l.Exact, 0, of[i])
			}
		}
	}
	dims(v.Dims, elementsOf, firstElementsOf)
	if whole, less := v.elements(); whole != nil {
		offer(whole, less, elementsOf)
	} else if v.Length != nil && len(v.Dims) == 0 {
		dims([]*lengthNode{v.Length}, charactersOf)
	}
	return list
}

// nodesAmong counts the nodes of a tree.
func nodesAmong(arg any) (n int64, ok bool) {
	list, ok := arg.([]any)
	for _, one := range list {
		n += truth(one != nil)
	}
	return n, ok
}

// edgesIn counts the edges between nodes, each from both of its ends where it has no direction.
func edgesIn(directed bool) func(arg any) (n int64, ok bool) {
	return func(arg any) (n int64, ok bool) {
		list, ok := arg.([]any)
		for i, one := range list {
			for _, to := range one.([]any) {
				n += truth(directed || int64(i)+1 <= to.(int64))
			}
		}
		return n, ok
	}
}

// nodesIn is what a type is made of nodes; Int where it is not.
func nodesIn(t value.Type) value.Kind {
	if t.Kind == value.Tree || t.Kind == value.Nary || t.Kind == value.Graph {
		return t.Kind
	}
	return value.Int
}

// elements says how many elements a permutation, a tree or a graph has as an argument: so many less
// than its parentheses say. Of all else it is nil.
func (v *valueNode) elements() (whole exprNode, less int64) {
	switch v.Base {
	case typePerm:
		return v.Args[0], 0
	case typeGraph:
		return v.Args[1], 0
	case typeTree, typeParents:
		return v.Args[0], 1
	}
	return nil, 0
}

// plainlyMore reports that an expression is a name, or that and a number more.
func plainlyMore(e exprNode, count string) (more int64, ok bool) {
	switch e := e.(type) {
	case *reference:
		return 0, e.index == nil && e.name == count
	case *binary:
		n, isNumber := e.y.(*number)
		if more, ok = plainlyMore(e.x, count); !ok || !isNumber {
			return 0, false
		}
		switch e.op {
		case "+":
			return more + n.value, true
		case "-":
			return more - n.value, true
		}
	}
	return 0, false
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

// plainType is a type as it is written, without what may be absent. A list of nodes is written as an
// array.
func plainType(t value.Type) string {
	element, depth := t.Element()
	if element.Kind == value.List || element.Kind == value.List2 {
		return plainType(*element.Of) + strings.Repeat("[]", depth+1)
	}
	return strings.ReplaceAll(t.String(), "?", "")
}

// types are those of arguments that a value can be.
func (v *valueNode) types() []string {
	of, arrays := v.Base.of().types(v)
	if v.traits().element {
		arrays = len(v.Dims)
	}
	for i := range of {
		of[i] += strings.Repeat("[]", arrays)
	}
	if v.traits().edges && len(v.With) == 0 {
		of = append(of, "graph(int)")
	}
	return of
}

// Arguments returns the input as a function takes it, as package value has values;
// nil if the shape is of lines.
func (in *Input) Arguments() (args []any) {
	for i, p := range in.shape.params {
		args = append(args, p.argument(in.top, in.shape.takes[i].Type))
	}
	return args
}

func (f *fieldNode) argument(top *frame, t value.Type) any {
	if t.Kind == value.Graph {
		return f.neighboursOf(top)
	}
	element, _ := t.Element()
	if element.Kind.IsNodes() {
		element = *element.Of
	}
	return f.assembled(top, func(f *fieldNode, d *datum, i int) any {
		if f.Value.Base == typeNodes && d.texts[i] == "null" {
			return nil
		}
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
	for i, p := range s.params {
		if wrong := p.take(top, args[i], actual); wrong != "" {
			return nil, &Fault{Line: i + 1, Name: p.name(), Text: wrong}, nil
		}
	}
	for _, f := range s.counts {
		f.count(top, s.params, args)
	}
	for i, p := range s.params {
		if wrong := p.wrongLength(top, args[i]); wrong != "" {
			return nil, &Fault{Line: i + 1, Name: p.name(), Text: wrong}, nil
		}
	}
	// Laid out in lines, it is read as any other input.
	w := &writer{}
	w.items(s.Items, top)
	c := &checker{scanner: newScanner(strings.NewReader(string(w.text)), false), keep: true, actual: actual}
	lines := s.linesOf(top)
	top, fault, err = s.readFrom(c)
	if fault != nil {
		argument, row := lines(fault.Line)
		if p := s.params[argument-1]; p.rows != nil && row >= 0 {
			fault.Text = fmt.Sprintf("%s[%d]: %s", p.name(), row, fault.Text)
		}
		fault.Line, fault.Nth = argument, 0
	}
	return top, fault, err
}

// linesOf returns which argument a line is of, when they are laid out in lines, and which row of it; -1: none. A count
// stands for the first argument that has so many elements.
func (s *Shape) linesOf(top *frame) func(line int) (argument, row int) {
	type end struct{ line, argument int }
	var ends []end
	last := 0
	for _, item := range s.Items {
		w := &writer{}
		w.items([]node{item}, top)
		last += strings.Count(string(w.text), "\n")
		argument := -1
		switch item := item.(type) {
		case *lineNode:
			f := item.Fields[0]
			argument = slices.IndexFunc(s.params, func(param *parameter) bool { return param.fieldNode == f })
			if argument < 0 {
				argument = slices.IndexFunc(s.params, func(param *parameter) bool { return len(param.lengthsFrom(f.Name)) > 0 })
			}
		case *repeatNode:
			argument = slices.IndexFunc(s.params, func(param *parameter) bool { return param.rows == item })
		default:
			continue
		}
		ends = append(ends, end{last, argument + 1})
	}
	return func(line int) (argument, row int) {
		from := 0
		for _, one := range ends {
			if line <= one.line {
				return one.argument, line - from - 1
			}
			from = one.line
		}
		return len(s.params), -1
	}
}

// count puts the count of what an argument has into a frame. Where there is nothing to be
// counted, as in the rows of a table that has none, it is the least that it can be.
func (f *fieldNode) count(top *frame, params []*parameter, args []any) {
	d := &top.data[f.slot]
	d.count = 1
	for i, param := range params {
		for _, l := range param.lengthsFrom(f.Name) {
			if n, ok := l.of(args[i]); ok {
				d.ints = []int64{n + l.more}
				return
			}
		}
	}
	low, _ := f.Value.bounds(top)
	d.ints = []int64{low}
}

// wrongLength says that an argument has not as many elements as it must have.
func (f *fieldNode) wrongLength(top *frame, arg any) string {
	v, have := f.Value, top.data[f.slot].count
	if f.nodes == value.Graph {
		if n, wrong := evaluated(v.Args[0], top); wrong == nil && n != int64(len(arg.([]any))) {
			return fmt.Sprintf("%s has %d nodes, and has %d (%s)", f.Name, len(arg.([]any)), n, v.Args[0])
		}
	}
	if v.Base == typeNodes { // looked at when it is read
		return ""
	}
	whole, less := v.elements()
	length := &lengthNode{Exact: whole}
	switch {
	case len(v.Dims) > 0:
		length = v.Dims[0]
	case whole == nil:
		return ""
	case less > 0:
		length.Exact = &binary{op: "-", x: whole, y: &number{value: less}}
	}
	if wrong := length.wrong(top, have); wrong != "" {
		return fmt.Sprintf("%s has %d elements, and has %s", f.Name, have, wrong)
	}
	return ""
}

// take puts an argument into a frame, and returns what it cannot be.
func (f *fieldNode) take(top *frame, arg any, actual map[*lengthNode]int64) (wrong string) {
	v, d := f.Value, &top.data[f.slot]
	if arg == nil {
		return f.Name + " is null, and has a value here"
	}
	if f.nodes == value.Graph {
		return f.takeNeighbours(top, arg.([]any))
	}
	if v.Base == typeNodes {
		for _, one := range arg.([]any) {
			if n, ok := one.(int64); ok {
				d.texts = append(d.texts, strconv.FormatInt(n, 10))
				d.count++
			} else {
				d.texts = append(d.texts, "null")
			}
		}
		return ""
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
		if _, number := v.number(x); v.Base == typePick && !number && !slices.Contains(v.Picks, x) {
			return fmt.Sprintf("%s is %q, and none of %s; %s", name, x, v.picks(), settings.Nearest(x, v.Picks))
		}
		d.texts = append(d.texts, x)
	}
	if len(v.Dims) == 0 && d.count == 0 {
		d.count = 1
	}
	return ""
}

package shape

import "strconv"

// A Structure is something in an input that can be drawn.
type Structure struct {
	Name string // "links", "cases 2, links"
	Base string // the word of the language: "graph", "grid", "int", …; "rows" for the bodies of a repeat
	// Value is as Values has it.
	Value    any
	From     int64 // the number of the first vertex, or the least of a permutation
	Vertices int64 // of a tree or a graph
	Directed bool
	Closed   bool     // points are the corners of a polygon
	Fields   []string // names of the columns of rows
	Spans    bool     // of rows: the second column is never less than the first
}

// Structures returns what can be drawn of an input, in the order of its shape. Single values are none.
func (in *Input) Structures() []Structure {
	if in.shape.takes != nil {
		return in.ofArguments()
	}
	return structures(in.shape.Items, in.top, "")
}

func structures(list []node, f *frame, prefix string) (all []Structure) {
	bodies := func(name string, inner []node, slot int) {
		for i, body := range f.data[slot].bodies {
			all = append(all, structures(inner, body, prefix+name+" "+strconv.Itoa(i+1)+", ")...)
		}
	}
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			for _, field := range item.Fields {
				all = append(all, fieldStructure(field, f, prefix)...)
			}
		case *casesNode:
			bodies("case", item.Items, item.Count.slot)
		case *repeatNode:
			if rows, ok := rowsOf(item, f, prefix); ok {
				all = append(all, rows)
			} else {
				bodies("body", item.Items, item.slot)
			}
		case *eitherNode:
			d := &f.data[item.slot]
			all = append(all, structures(item.Branches[d.count], d.bodies[0], prefix)...)
		}
	}
	return all
}

// fieldStructure is what a field holds, if that can be drawn.
func fieldStructure(field *fieldNode, f *frame, prefix string) []Structure {
	v := field.Value
	if v == nil || field.Name == "" {
		return nil
	}
	s := Structure{Name: prefix + field.Name, Base: v.Base.String(), Value: field.assembled(f, (*fieldNode).one), From: v.From, Directed: v.Directed, Closed: v.Convex || v.Simple}
	if v.Spread || v.Convex || v.Simple {
		s.Base = "points"
	}
	t := v.traits()
	switch {
	case t.edges, v.Base == typeParents:
		s.Vertices = v.Args[0].eval(f)
	case !t.list && len(v.Dims) == 0 && v.Length == nil: // a single value
		return nil
	}
	return []Structure{s}
}

// rowsOf takes a repeat whose bodies are a line of single numbers each as rows.
func rowsOf(r *repeatNode, f *frame, prefix string) (s Structure, ok bool) {
	if len(r.Items) != 1 {
		return s, false
	}
	line, ok := r.Items[0].(*lineNode)
	if !ok || len(line.Fields) < 1 {
		return s, false
	}
	for _, field := range line.Fields {
		v := field.Value
		if v == nil || field.Name == "" || v.traits().list || v.traits().edges || len(v.Dims) > 0 || v.Length != nil || len(v.Picks) > 0 {
			return s, false
		}
		s.Fields = append(s.Fields, field.Name)
	}
	if len(line.Fields) >= 2 {
		if low := line.Fields[1].Value.Range; low != nil && low.Low != nil {
			if name, isName := low.Low.(*reference); isName && name.index == nil {
				s.Spans = name.name == line.Fields[0].Name
			}
		}
	}
	var rows []any
	for _, body := range f.data[r.slot].bodies {
		var row []any
		for _, field := range line.Fields {
			row = append(row, field.assembled(body, (*fieldNode).one))
		}
		rows = append(rows, row)
	}
	s.Name, s.Base, s.Value = prefix+"rows", "rows", rows
	return s, true
}

// ofArguments are the arguments of a function that can be drawn.
func (in *Input) ofArguments() (all []Structure) {
	for i, arg := range in.Arguments() {
		if list, ok := arg.([]any); ok {
			all = append(all, Structure{Name: in.shape.takes[i].Name, Base: "argument", Value: list})
		} else if text, ok := arg.(string); ok {
			all = append(all, Structure{Name: in.shape.takes[i].Name, Base: "token", Value: text})
		}
	}
	return all
}

package shape

import (
	"strconv"
)

// Values are the values of a block by their names, in the order of the shape.
type Values []Named

// A Named is one of them: an int64, a float64, a string, or a []any of such values or
// of Values.
type Named struct {
	Name  string
	Value any
}

// Values returns the values of an input by the names in its shape. An array is a
// list, a grid one of its rows, a tree or graph one of its edges with what stands
// behind each; what is on the lines of edges is a list under its own name, too. The
// bodies of a cases block are a list named cases, those of a repeat one named
// bodies, or bodies2 and so on for further ones. The names of a branch stand beside
// those around it, with branch, its number from 1.
func (in *Input) Values() Values {
	if in.shape.takes != nil {
		var all Values
		for i, arg := range in.Arguments() {
			all = append(all, Named{in.shape.takes[i].Name, arg})
		}
		return all
	}
	return blockValues(in.shape.Items, in.top)
}

func blockValues(list []node, f *frame) (all Values) {
	lists := map[string]int{}
	bodies := func(name string, inner []node, slot int) {
		if lists[name]++; lists[name] > 1 {
			name += strconv.Itoa(lists[name])
		}
		each := make([]any, len(f.data[slot].bodies))
		for i, body := range f.data[slot].bodies {
			each[i] = blockValues(inner, body)
		}
		all = all.with(name, each)
	}
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			for _, field := range item.Fields {
				all = fieldValues(all, field, f)
			}
		case *casesNode:
			all = append(all, Named{item.Count.Name, f.data[item.Count.slot].ints[0]})
			bodies("cases", item.Items, item.Count.slot)
		case *repeatNode:
			bodies("bodies", item.Items, item.slot)
		case *eitherNode:
			d := &f.data[item.slot]
			all = all.with("branch", d.count+1)
			for _, one := range blockValues(item.Branches[d.count], d.bodies[0]) {
				all = all.with(one.Name, one.Value)
			}
		}
	}
	return all
}

// with adds a name that the shape does not have itself.
func (v Values) with(name string, value any) Values {
	for _, one := range v {
		if one.Name == name {
			return v
		}
	}
	return append(v, Named{name, value})
}

func fieldValues(all Values, field *fieldNode, f *frame) Values {
	v := field.Value
	if v == nil {
		return all
	}
	if field.Name != "" {
		all = append(all, Named{field.Name, field.assembled(f, (*fieldNode).one)})
	}
	for _, w := range v.With {
		if w.Value != nil && w.Name != "" {
			all = append(all, Named{w.Name, w.list(f, (*fieldNode).one)})
		}
	}
	return all
}

// one is a single value of a field.
func (f *fieldNode) one(d *datum, i int) any {
	switch {
	case len(d.texts) == 0:
		return d.ints[i]
	case f.Value.Base == typeReal:
		x, _ := strconv.ParseFloat(d.texts[i], 64)
		return x
	}
	return d.texts[i]
}

// list are all single values of a field, as single makes each.
func (f *fieldNode) list(top *frame, single singles) []any {
	d := &top.data[f.slot]
	all := make([]any, d.size())
	for i := range all {
		all[i] = single(f, d, i)
	}
	return all
}

// singles makes a single value of a field what it is to others.
type singles func(f *fieldNode, d *datum, i int) any

// assembled is what a field holds: a single value, a list, rows, or edges with what
// stands behind each.
func (f *fieldNode) assembled(top *frame, single singles) any {
	v, d := f.Value, &top.data[f.slot]
	all := f.list(top, single)
	switch {
	case v.traits().edges:
		edges := make([]any, len(all)/2)
		for i := range edges {
			edge := []any{all[2*i], all[2*i+1]}
			for _, w := range v.With {
				if w.Value != nil {
					edge = append(edge, single(w, &top.data[w.slot], i))
				}
			}
			edges[i] = edge
		}
		return edges
	case len(v.Dims) == 2 && v.traits().element:
		rows := make([]any, d.count)
		for i := range rows {
			columns := len(all) / len(rows)
			rows[i] = all[i*columns : (i+1)*columns]
		}
		return rows
	case len(v.Dims) == 0 && !v.traits().list:
		return all[0]
	}
	return all
}

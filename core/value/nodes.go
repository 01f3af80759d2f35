package value

import (
	"slices"

	"github.com/maruel/natural"
)

// Lists and trees are written as arrays: a list as its values, from the first; a tree level by level,
// with null for a child that is missing and none behind the last node; a tree of any number of children
// level by level, with a null behind the children of each node, the root's included; a graph as
// the neighbours of each node by their numbers, from 1. None at all is []. A list whose last node leads
// back is {"list": [3, 2], "cycle": 0}, with the position of the node that it leads to.

// nodes reads what is made of nodes.
func (r *reader) nodes(t Type) (any, error) {
	began := r.at
	if r.word("null") {
		return []any{}, nil
	}
	if (t.Kind == List || t.Kind == List2) && r.at < len(r.text) && r.text[r.at] == '{' {
		return r.cycle(t)
	}
	integer := Type{Kind: Int}
	held := Type{Kind: Array, Of: t.Of}
	switch t.Kind {
	case Graph:
		held = Type{Kind: Array, Of: &Type{Kind: Array, Of: &integer}}
	case Tree, Nary:
		held = Type{Kind: Array, Of: &Type{Kind: Optional, Of: t.Of}}
	}
	if r.at == len(r.text) || r.text[r.at] != '[' {
		return nil, r.wrong("expected %s, written as an array; found %s", a(t), r.found())
	}
	v, err := r.array(held)
	if err != nil {
		return nil, err
	}
	list := v.([]any)
	for len(list) > 0 && list[len(list)-1] == nil {
		list = list[:len(list)-1]
	}
	switch t.Kind {
	case Tree:
		places := 1 // for nodes that are read
		for i, one := range list {
			if places--; places < 0 {
				return nil, r.wrongAt(began, "the value %d, counted from 0, has no parent: all nodes before it have their children", i)
			}
			if one != nil {
				places += 2
			}
		}
	case Nary:
		if len(list) > 1 && (list[0] == nil || list[1] != nil) {
			return nil, r.wrongAt(began, "behind the root stands null, and then its children")
		}
		nodes, closed := 0, 0
		for i, one := range list {
			if one != nil {
				nodes++
			} else if closed++; closed > nodes {
				return nil, r.wrongAt(began, "the null %d, counted from 0, is behind the children of no node", i)
			}
		}
	case Graph:
		for i, neighbours := range list {
			for _, n := range neighbours.([]any) {
				if to := n.(int64); to < 1 || to > int64(len(list)) {
					return nil, r.wrongAt(began, "node %d has the neighbour %d; there are 1 to %d", i+1, to, len(list))
				}
			}
		}
	}
	return list, nil
}

// Children are the places of the children of each node of a tree that is laid out over so many places, as arrays of
// cases are; holds says at which of them there is a node, and there is one at the first. Of a Tree they are the left
// and the right one, -1 where that is missing; of a Nary tree all of a node.
func Children(kind Kind, places int, holds func(at int) bool) [][]int {
	all := make([][]int, places)
	open, at := []int{0}, 1
	if kind == Nary {
		at = 2 // behind the root stands null
	}
	next := func() int {
		i := at
		if at++; i >= places || !holds(i) {
			return -1
		}
		open = append(open, i)
		return i
	}
	for k := 0; k < len(open) && places > 0; k++ {
		if kind == Tree {
			all[open[k]] = []int{next(), next()}
			continue
		}
		for i := next(); i >= 0; i = next() {
			all[open[k]] = append(all[open[k]], i)
		}
	}
	return all
}

// cycle reads a list whose last node leads back.
func (r *reader) cycle(t Type) (any, error) {
	began := r.at
	v, err := r.members(func(name string) (any, error) {
		if name == "list" {
			return r.value(Type{Kind: Array, Of: t.Of})
		}
		return r.value(Type{Kind: Int})
	})
	if err != nil {
		return nil, err
	}
	values, ok := v.Get("list")
	to, ok2 := v.Get("cycle")
	if !ok || !ok2 || len(v) != 2 {
		return nil, r.wrongAt(began, "a list that goes in a circle is written {\"list\": [3, 2], \"cycle\": 0}")
	}
	list := values.([]any)
	switch at := to.(int64); {
	case at == -1:
		return list, nil
	case at < 0 || at >= int64(len(list)):
		return nil, r.wrongAt(began, "there is no node %d, counted from 0, to lead back to", at)
	}
	return Object{{"list", list}, {"cycle", to}}, nil
}

// mapped reads a map. Keys that are integers stand in quotes, as all names of JSON do.
func (r *reader) mapped(t Type) (any, error) {
	if r.at == len(r.text) || r.text[r.at] != '{' {
		return nil, r.wrong("expected %s, written as {…}; found %s", a(t), r.found())
	}
	o, err := r.members(func(name string) (any, error) {
		if t.Key != Text {
			if _, err := Read(keyText(name, t.Key), Type{Kind: t.Key}); err != nil {
				return nil, r.wrong("the key %q is no %s", name, words[t.Key])
			}
		}
		r.blanks()
		return r.value(*t.Of)
	})
	if err != nil {
		return nil, err
	}
	slices.SortFunc(o, func(a, b Member) int { return natural.Compare(a.Name, b.Name) })
	return o, nil
}

// keyText is a key as a value of its kind is written.
func keyText(name string, kind Kind) string {
	if kind == Char {
		return string(appendText(nil, name))
	}
	return name
}

// members reads an object, each of its values as read does.
func (r *reader) members(read func(name string) (any, error)) (o Object, err error) {
	if !r.word("{") {
		return nil, r.wrong("expected {, found %s", r.found())
	}
	o = Object{}
	for r.blanks(); !r.word("}"); r.blanks() {
		if len(o) > 0 && !r.word(",") {
			return nil, r.wrong("expected , or }, found %s", r.found())
		}
		r.blanks()
		began := r.at
		if r.at == len(r.text) || r.text[r.at] != '"' {
			return nil, r.wrong("expected a name in quotes, found %s", r.found())
		}
		name, err := r.string()
		if err != nil {
			return nil, err
		}
		if _, ok := o.Get(name); ok {
			return nil, r.wrongAt(began, "the name %q comes a second time", name)
		}
		if r.blanks(); !r.word(":") {
			return nil, r.wrong("expected : behind %q, found %s", name, r.found())
		}
		r.path = append(r.path, step{name: "." + name})
		v, err := read(name)
		if err != nil {
			return nil, err
		}
		r.path = r.path[:len(r.path)-1]
		o = append(o, Member{name, v})
	}
	return o, nil
}

// any reads whatever JSON has. An integer is one, whatever its size, and a number with a point is a
// real.
func (r *reader) any() (any, error) {
	r.blanks()
	if r.at == len(r.text) {
		return nil, r.wrong("expected a value, found the end")
	}
	switch c := r.text[r.at]; {
	case c == '[':
		return r.array(Type{Kind: Array, Of: &Type{Kind: Any}})
	case c == '{':
		if len(r.path) > 1000 {
			return nil, r.wrong("nested too deeply")
		}
		return r.members(func(string) (any, error) { return r.any() })
	case c == '"':
		return r.string()
	case r.word("null"):
		return nil, nil
	case r.word("true"):
		return true, nil
	case r.word("false"):
		return false, nil
	}
	at := r.at
	if n, ok, err := r.number(BigInt); ok && err == nil {
		return n, nil
	}
	r.at = at
	if x, ok, err := r.number(Real); ok && err == nil {
		return x, nil
	}
	return nil, r.wrong("expected a value, found %s", r.found())
}

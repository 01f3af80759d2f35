package shape

import (
	"fmt"
	"slices"
)

// A Place is where a value stands in an input of lines, for a program that reads it.
type Place struct {
	Name string
	// Real, Word and Line say what a single value is: a decimal, a token that is no number, the
	// rest of a line. Otherwise it is an integer, or a token of a choice.
	Real, Word, Line bool
	// Sizes are how many values there are, the outermost first; none: a single value. An empty
	// size is as many as there are on the line. Others are expressions of names before, integers,
	// + - * and parentheses.
	Sizes []string
	// Begins says that it begins on a line of its own, and Rows that each of its outermost
	// elements has one.
	Begins, Rows bool
}

// Places returns where the values of an input stand, one after the other. The error says what
// cannot be read by plain reading, with line and column.
func (s *Shape) Places() (list []Place, err error) {
	for _, item := range s.Items {
		switch item := item.(type) {
		case *requireNode, *scaleItem:
		case *lineNode:
			for i, f := range item.Fields {
				if f.Joined || i+1 < len(item.Fields) && item.Fields[i+1].Joined || f.Value != nil && f.Value.Pad > 0 {
					return nil, Mistake{f.Pos, "what is joined by &, and integers with pad, are not read"}
				}
				p, err := f.stands()
				if err != nil {
					return nil, err
				}
				p.Begins = i == 0 || p.Rows
				list = append(list, p)
			}
		default:
			return nil, Mistake{placeOf(item), "there are no cases, repetitions, branches and empty lines around a function"}
		}
	}
	return list, nil
}

func (f *fieldNode) stands() (p Place, err error) {
	v := f.Value
	if v == nil || f.Name == "" {
		return p, Mistake{f.Pos, "each value needs a name, so that the function can be given it"}
	}
	if v.By != "" {
		return p, Mistake{f.Pos, fmt.Sprintf("what stands between the elements of %s, %q, is not read", f.Name, v.By)}
	}
	p = Place{Name: f.Name, Real: v.Base == typeReal, Word: v.Base == typeToken || v.Base == typeDigits || v.Base == typeGrid, Line: v.Base == typeText || v.Base == typeGrid && v.Set.Has(' '), Rows: v.alone()}
	dims := v.Dims
	size := func(e exprNode, less int64) {
		if err == nil && !readable(e) {
			err = Mistake{e.place(), fmt.Sprintf("how many there are is read as a number, a name, or these with + - *, and not as %s", e)}
		}
		text := e.String()
		if less > 0 {
			if _, whole := e.(*binary); whole {
				text = "(" + text + ")"
			}
			text += fmt.Sprint(" - ", less)
		}
		p.Sizes = append(p.Sizes, text)
	}
	if v.Base == typeGrid {
		dims = dims[:1] // each row is one value
	} else if whole, less := v.elements(); whole != nil {
		size(whole, less)
	}
	if v.traits().edges {
		for _, w := range v.With {
			if w.Value == nil || w.Value.Base != typeInt {
				return p, Mistake{w.Pos, "what stands behind an edge is read as integers"}
			}
		}
		p.Sizes = append(p.Sizes, fmt.Sprint(2+len(v.With)))
	}
	for _, d := range dims {
		if d.Exact == nil {
			p.Sizes = append(p.Sizes, "")
		} else {
			size(d.Exact, 0)
		}
	}
	return p, err
}

// readable reports that any language can compute an expression in the same words.
func readable(e exprNode) bool {
	switch e := e.(type) {
	case *number:
		return e.decimal == ""
	case *reference:
		return e.index == nil
	case *binary:
		return slices.Contains([]string{"+", "-", "*"}, e.op) && readable(e.x) && readable(e.y)
	}
	return false
}

// CountsOf returns the counts of a shape of arguments by their names, as these have them.
func (s *Shape) CountsOf(args []any) map[string]int64 {
	top := newFrame(s.top, nil)
	counts := map[string]int64{}
	for _, f := range s.counts {
		f.count(top, s.params, args)
		counts[f.Name] = top.data[f.slot].ints[0]
	}
	return counts
}

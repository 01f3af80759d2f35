package shape

import (
	"slices"
	"strconv"
)

// An edge case is named after what it is. What it was to be may have given way: to a requirement, to a range without 0
// in it, to a shape without other values to be tied to.

// lose notes that a style, which an edge case was to have, was not heeded.
func (m *maker) lose(key any) {
	if m.unheeded != nil && m.plan[key] != "" {
		m.unheeded[key] = true
	}
}

// shows reports whether an input has the style of a field or an item that was chosen for it, as far as its values tell.
func (in *Input) shows(key any, style string) bool {
	if item, ok := key.(*eitherNode); ok {
		return style == "mixed" || in.only(item, style)
	}
	field, ok := key.(*fieldNode)
	if !ok || field.Value.Base != typeInt || field.counts {
		return true
	}
	holds := true
	var all []int64
	eachField(in.shape.Items, in.top, func(f *fieldNode, at *frame) {
		if f != field {
			return
		}
		a := at.data[f.slot].ints
		all = append(all, a...)
		if len(f.Value.Dims) > 0 || f.ofEdges {
			holds = holds && f.Value.shows(style, a, at)
		}
	})
	if len(field.Value.Dims) == 0 && !field.ofEdges {
		holds = field.Value.shows(style, all, nil)
	}
	return holds
}

// shows reports whether some values have a style. Without a frame its bounds are not looked at.
func (v *valueNode) shows(style string, a []int64, f *frame) bool {
	every := func(fits func(x int64) bool) bool {
		return !slices.ContainsFunc(a, func(x int64) bool { return !fits(x) })
	}
	low, high := int64(0), int64(0)
	if f != nil && !v.changing() {
		low, high = v.bounds(f)
	}
	switch style {
	case "zero", "all-zero":
		return every(func(x int64) bool { return x == 0 })
	case "near-zero":
		return every(func(x int64) bool { return x >= -2 && x <= 2 })
	case "all-equal":
		return every(func(x int64) bool { return x == a[0] })
	case "all-least":
		return low == high || every(func(x int64) bool { return x == low })
	case "all-largest":
		return low == high || every(func(x int64) bool { return x == high })
	case "sorted":
		return slices.IsSorted(a)
	case "reversed":
		return slices.IsSortedFunc(a, func(x, y int64) int { return int(truth(x < y)) - int(truth(x > y)) })
	case "sums":
		sum := uint64(0)
		for _, x := range a {
			sum += uint64(x)
		}
		return slices.ContainsFunc(borders, func(b uint64) bool { return sum-(b-2) <= 2 })
	}
	return true
}

// only reports a style that makes one branch, and whether all branches are that one.
func (in *Input) only(item *eitherNode, style string) bool {
	holds := true
	var walk func(list []node, f *frame)
	walk = func(list []node, f *frame) {
		for _, i := range list {
			if e, ok := i.(*eitherNode); ok && e == item {
				holds = holds && style == "only-"+strconv.FormatInt(f.data[e.slot].count+1, 10)
			}
			if slot, inner := blockOf(i, f); inner != nil {
				for _, body := range f.data[slot].bodies {
					walk(inner, body)
				}
			}
		}
	}
	walk(in.shape.Items, in.top)
	return holds
}

package shape

import "slices"

// What but takes out of a range: single values, or all of those in an array.

// excluded reports that a value is one that a field must not have, and which.
func (v *valueNode) excluded(in *frame, x int64) (by exprNode, ok bool) {
	return newExclusions(v, in, 0).has(x)
}

// An exclusions is what a field must not have, where its frame is known.
type exclusions struct {
	of   *valueNode
	in   *frame
	sets []map[int64]bool // of long arrays; nil: it is looked through
}

// manyLooks is from how many looks on an array is made a set.
const manyLooks = 16

// newExclusions makes ready for about so many looks.
func newExclusions(v *valueNode, in *frame, looks int) *exclusions {
	x := &exclusions{of: v, in: in}
	if looks < manyLooks {
		return x
	}
	x.sets = make([]map[int64]bool, len(v.But))
	for i, e := range v.But {
		if r := wholeArray(e); r != nil {
			x.sets[i] = map[int64]bool{}
			for _, one := range r.datum(in).ints {
				x.sets[i][one] = true
			}
		}
	}
	return x
}

func (x *exclusions) has(n int64) (by exprNode, ok bool) {
	for i, e := range x.of.But {
		r := wholeArray(e)
		switch {
		case r == nil:
			ok = e.eval(x.in) == n
		case x.sets != nil:
			ok = x.sets[i][n]
		default:
			ok = slices.Contains(r.datum(x.in).ints, n)
		}
		if ok {
			return e, true
		}
	}
	return nil, false
}

// wholeArray is a name that stands for many integers; nil: the expression is another.
func wholeArray(e exprNode) *reference {
	r, ok := e.(*reference)
	if !ok || r.index != nil || r.field == nil || r.field.single() || !r.field.Value.traits().integers || r.field.ofEdges {
		return nil
	}
	return r
}

// datum is what a name holds.
func (e *reference) datum(f *frame) *datum {
	return &f.up(e.up).data[e.field.slot]
}

package shape

import (
	"math"
	"slices"
)

// What is required of the elements of arrays is hardly ever met by chance: a[0] + a[1] = k, sum(w) = 100. So elements
// are changed until it holds, each change being one that brings the requirements nearer: a local search over single
// values, with the steps that linear comparisons have.

// The bounds of that search.
const (
	mostRepairs = 60         // changes
	nearSteps   = 32         // neighbours of a value that are tried, on either side
	mostEffort  = 20_000_000 // elements of arrays that are looked at, in all draws of an input
	oneLook     = 100        // elements that one evaluation counts for
)

// A knob is an array whose elements can be changed, and which of them are.
type knob struct {
	field   *fieldNode
	at      []int
	whole   bool   // a requirement names the array, and not an element
	extreme string // it names the max or min of the array
}

// repair changes elements of arrays so that all requirements of some items hold, and reports that they do. What was
// changed stays valid otherwise.
func (m *maker) repair(list []node, f *frame) bool {
	var required []exprNode
	for _, item := range list {
		if q, ok := item.(*requireNode); ok {
			required = append(required, joinedByAnd(q.Cond)...)
		}
	}
	for range mostRepairs {
		if m.effort > mostEffort {
			return false
		}
		before, broken := m.distanceOf(required, f)
		if len(broken) == 0 {
			putBack(list, f)
			return true
		}
		if !slices.ContainsFunc(broken, func(e exprNode) bool { return m.nearer(e, required, before, list, f) }) {
			return false
		}
	}
	return false
}

// joinedByAnd are the conditions of which all must hold.
func joinedByAnd(e exprNode) []exprNode {
	if b, ok := e.(*binary); ok && b.op == "and" {
		return append(joinedByAnd(b.x), joinedByAnd(b.y)...)
	}
	return []exprNode{e}
}

// distanceOf is how far conditions are from holding, all together, and which do not.
func (m *maker) distanceOf(required []exprNode, f *frame) (far float64, broken []exprNode) {
	for _, e := range required {
		m.effort += oneLook
		m.worked(oneLook)
		eachReference(e, func(r *reference) {
			if r.up == 0 && r.index == nil {
				m.effort += int64(len(f.data[r.field.slot].ints))
			}
		})
		if n, wrong := evaluated(e, f); wrong != nil || n == 0 {
			far += distance(e, f)
			broken = append(broken, e)
		}
	}
	return far, broken
}

// distance is how far a condition that does not hold is from holding: by how much its sides differ, where those are
// numbers that it compares.
func distance(e exprNode, f *frame) float64 {
	const far = 1e300
	b, ok := e.(*binary)
	if !ok || opposite[b.op] == "" {
		return 1
	}
	x, wrong := evaluated(b.x, f)
	y, wrong2 := evaluated(b.y, f)
	if wrong != nil || wrong2 != nil {
		return far
	}
	return 1 + math.Abs(float64(x)-float64(y))
}

// nearer makes one change that brings the requirements nearer, by what a broken one of them names.
func (m *maker) nearer(e exprNode, required []exprNode, before float64, list []node, f *frame) bool {
	knobs := m.knobsOf(e, list, f)
	shuffle(m.random, knobs)
	for _, k := range knobs {
		if k.extreme != "" && m.clip(k, e, required, before, f) || k.whole && m.shift(k.field, e, required, before, f) {
			return true
		}
		for _, i := range k.at {
			if m.turn(k.field, i, e, required, before, f) {
				return true
			}
		}
	}
	return false
}

// knobsOf are the arrays in this block of which a condition names elements, or all of them, and on which nothing else
// depends.
func (m *maker) knobsOf(e exprNode, list []node, f *frame) (knobs []knob) {
	const some = 6 // elements of an array that is named as a whole
	extremes := map[*reference]string{}
	eachCall(e, func(c *call) {
		if r, ok := c.args[0].(*reference); ok && len(c.args) == 1 && (c.name == "max" || c.name == "min") {
			extremes[r] = c.name
		}
	})
	eachReference(e, func(r *reference) {
		field := r.field
		d := &f.data[min(field.slot, len(f.data)-1)]
		v := field.Value
		if r.up > 0 || v.Base != typeInt || len(v.Dims) != 1 || len(d.ints) == 0 || field.ofEdges || dependsOn(list, field) || !columnIsFree(list, field) {
			return
		}
		if r.index != nil {
			if i, wrong := evaluated(r.index, f); wrong == nil && i >= 0 && i < int64(len(d.ints)) {
				knobs = append(knobs, knob{field: field, at: []int{int(i)}})
			}
			return
		}
		k := knob{field: field, whole: true, extreme: extremes[r]}
		for range min(some, len(d.ints)) {
			k.at = append(k.at, m.index(len(d.ints)))
		}
		knobs = append(knobs, k)
	})
	return knobs
}

// dependsOn reports that what another value may be depends on a field.
func dependsOn(list []node, field *fieldNode) (depends bool) {
	fieldsOf(list, func(f *fieldNode) {
		if f.Value == nil {
			return
		}
		for _, e := range f.Value.expressions() {
			eachReference(e, func(r *reference) { depends = depends || r.field == field })
		}
	})
	return depends
}

// turn changes one element, to the value, of some that are likely, with which the requirements are nearest. In an array
// that is in order it takes those along that would no longer be.
func (m *maker) turn(field *fieldNode, i int, e exprNode, required []exprNode, before float64, f *frame) bool {
	v, d := field.Value, &f.data[field.slot]
	was := d.ints[i]
	all := d.ints
	if v.inOrder() {
		all = slices.Clone(d.ints)
	}
	best, value := before, was
	set := func(x int64) bool {
		if d.ints[i] = x; v.inOrder() {
			copy(d.ints, all)
			return v.push(f, d.ints, i, x)
		}
		return v.allows(f, d.ints, i)
	}
	try := func(x int64) bool {
		if !set(x) {
			return false
		}
		far, broken := m.distanceOf(required, f)
		if far < best {
			best, value = far, x
		}
		return len(broken) == 0
	}
	defer func() { set(value) }()
	if step, ok := linear(e, f, func(by int64) { d.ints[i] = was + by }); ok {
		var low, high int64
		f.atElement(int64(i), func() { low, high = field.Value.bounds(f) })
		for near := int64(-1); near <= 1; near++ {
			if x, ok := arithmetic("+", was, step+near); ok && try(min(max(x, low), high)) {
				return true
			}
		}
	}
	for step := int64(1); step <= nearSteps; step++ {
		if try(was+step) || try(was-step) {
			return true
		}
	}
	return best < before
}

// linear is by how much something that a comparison names must change so that both sides are alike, where their
// difference changes evenly with it.
func linear(e exprNode, f *frame, change func(by int64)) (by int64, ok bool) {
	b, ok := e.(*binary)
	if !ok || opposite[b.op] == "" {
		return 0, false
	}
	difference := func(by int64) (int64, bool) {
		change(by)
		defer change(0)
		n, wrong := evaluated(&binary{pos: b.pos, op: "-", x: b.x, y: b.y}, f)
		return n, wrong == nil
	}
	at, ok := difference(0)
	next, ok2 := difference(1)
	slope, ok3 := arithmetic("-", next, at)
	if !ok || !ok2 || !ok3 || slope == 0 {
		return 0, false
	}
	return -(at / slope), true
}

// inOrder reports that the elements of an array are in an order.
func (v *valueNode) inOrder() bool { return v.Sorted || v.Rising || v.Falling }

// push changes one element of an array that is in order, and those beside it as far as they have to give way; false
// where there is no room for them.
func (v *valueNode) push(f *frame, a []int64, i int, x int64) bool {
	low, high := v.bounds(f)
	step := truth(v.Rising || v.Falling)
	if v.Falling {
		step = -1
	}
	fits := func(x int64) bool {
		_, out := v.excluded(f, x)
		return x >= low && x <= high && !out
	}
	give := func(from, by int, step int64) bool {
		for j := from; j >= 0 && j < len(a); j += by {
			next, ok := arithmetic("+", a[j-by], step)
			behind := a[j] >= next
			if step < 0 || step == 0 && by < 0 {
				behind = a[j] <= next
			}
			if behind {
				return true
			}
			if a[j] = next; !ok || !fits(next) {
				return false
			}
		}
		return true
	}
	a[i] = x
	return fits(x) && give(i+1, 1, step) && give(i-1, -1, -step)
}

// allows reports that an element, which was changed, is one that an array in no order may have there.
func (v *valueNode) allows(f *frame, a []int64, i int) (ok bool) {
	x := a[i]
	f.atElement(int64(i), func() {
		low, high := v.bounds(f)
		_, out := v.excluded(f, x)
		ok = x >= low && x <= high && !out
	})
	if !ok || !v.Distinct || v.DistinctBut != nil && v.DistinctBut.eval(f) == x {
		return ok
	}
	return !slices.Contains(a[:i], x) && !slices.Contains(a[i+1:], x)
}

// shift changes all elements together, in any order, by what one of them would have to change by for a comparison to
// hold: first each by a part of it, then each as far as it can.
func (m *maker) shift(field *fieldNode, e exprNode, required []exprNode, before float64, f *frame) bool {
	v, d := field.Value, &f.data[field.slot]
	if v.unlike() || v.inOrder() || len(d.ints) < 2 {
		return false
	}
	was := slices.Clone(d.ints)
	left, ok := linear(e, f, func(by int64) { d.ints[0] = was[0] + by })
	if !ok || left == 0 {
		return false
	}
	order := m.permutation(len(was))
	for _, whole := range []bool{false, true} {
		for _, i := range order {
			f.atElement(int64(i), func() {
				low, high := v.bounds(f)
				part := left
				if !whole {
					part = m.magnitude(0, abs(left))
					if left < 0 {
						part = -part
					}
				}
				to := d.ints[i] + part // the sum of an array lies in 64 bits
				if _, out := v.excluded(f, min(max(to, low), high)); !out {
					to = min(max(to, low), high)
					left -= to - d.ints[i]
					d.ints[i] = to
				}
			})
		}
	}
	if far, _ := m.distanceOf(required, f); far < before {
		return true
	}
	copy(d.ints, was)
	return false
}

// clip moves the max or the min of an array by what a comparison lacks, and draws again what lies beyond.
func (m *maker) clip(k knob, e exprNode, required []exprNode, before float64, f *frame) bool {
	v, d := k.field.Value, &f.data[k.field.slot]
	if v.unlike() || v.inOrder() {
		return false
	}
	first := slices.Index(d.ints, slices.Max(d.ints))
	if k.extreme == "min" {
		first = slices.Index(d.ints, slices.Min(d.ints))
	}
	was := slices.Clone(d.ints)
	step, ok := linear(e, f, func(by int64) {
		// All that are alike move, so that the extreme does.
		for i, x := range was {
			if d.ints[i] = x; x == was[first] {
				d.ints[i] += by
			}
		}
	})
	if !ok || step == 0 {
		return false
	}
	to := was[first] + step
	least, most := slices.Min(was), slices.Max(was)
	for i, x := range was {
		f.atElement(int64(i), func() {
			low, high := v.bounds(f)
			switch {
			case to < low || to > high:
			case i == first:
				d.ints[i] = to
			case k.extreme == "max" && x > to:
				d.ints[i] = m.between(min(to, max(low, least)), to)
			case k.extreme == "min" && x < to:
				d.ints[i] = m.between(to, max(to, min(high, most)))
			}
			if _, out := v.excluded(f, d.ints[i]); out {
				d.ints[i] = x
			}
		})
	}
	if far, _ := m.distanceOf(required, f); far < before {
		return true
	}
	copy(d.ints, was)
	return false
}

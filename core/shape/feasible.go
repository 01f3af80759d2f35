package shape

import (
	"math/bits"
)

// What a single integer can be depends on conditions that also mention other names.
// Those that are known already are taken as they are. Where one is to be drawn
// later, a value will do if there seems to be one for that name too. Values are
// tried, and not derived, since a condition can be any expression; so a range is
// narrowed well where a condition holds from or up to some value, and other
// conditions are met by drawing again.

// feasible reports whether a field may have a value, as far as that can be seen.
// Afterwards it has none.
func (m *maker) feasible(field *fieldNode, f *frame, x int64) bool {
	if len(field.conditions) == 0 {
		return true
	}
	d := &f.data[field.slot]
	d.ints = append(d.ints[:0], x)
	defer func() { d.ints = d.ints[:0] }()
	for _, c := range field.conditions {
		switch later, n := unknown(c, f); {
		case n == 0 && !c.met(f):
			return false
		case n == 1 && !m.hasValue(later, f):
			return false
		}
	}
	return true
}

// unknown returns a name of a condition that has no value yet, and how many have
// none.
func unknown(c *condition, f *frame) (later *fieldNode, n int) {
	for _, r := range c.refs {
		if len(r.datum(f).ints) == 0 && r.field != later {
			later = r.field
			n++
		}
	}
	return later, n
}

// hasValue reports whether a value is found for a name that is to be drawn later,
// with which all holds of which nothing else is unknown. It is true where the range
// of that name is not known yet.
func (m *maker) hasValue(later *fieldNode, f *frame) bool {
	if later.Value.Range == nil {
		return true
	}
	low, wrong := evaluated(later.Value.Range.Low, f)
	high, wrong2 := evaluated(later.Value.Range.High, f)
	if wrong != nil || wrong2 != nil {
		return true
	}
	d := &f.data[later.slot]
	defer func() { d.ints = d.ints[:0] }()
	holds := func(x int64) bool {
		if x < low || x > high {
			return false
		}
		d.ints = append(d.ints[:0], x)
		for _, c := range later.conditions {
			if _, n := unknown(c, f); n == 0 && !c.met(f) {
				return false
			}
		}
		return true
	}
	found := false
	likely(low, high, f, func(x int64) bool {
		found = holds(x)
		return !found
	})
	return found
}

// allTried is how wide a range may be of which each value is tried.
const allTried = 256

// likely goes through values from low to high that conditions tend to have as their
// borders, until more is false.
func likely(low, high int64, f *frame, more func(x int64) bool) {
	if low > high || !more(low) || !more(high) {
		return
	}
	width := uint64(high) - uint64(low)
	if width <= allTried {
		for x := low + 1; x < high && more(x); x++ {
		}
		return
	}
	for k := range bits.Len64(width) {
		if step := uint64(1) << k; step < width && (!more(low+int64(step)) || !more(high-int64(step))) {
			return
		}
	}
	for at := f; at != nil; at = at.above { // next to other names
		for i := range at.data {
			if d := &at.data[i]; len(d.ints) == 1 && d.count == 1 {
				for step, x := int64(-1), d.ints[0]; step <= 1; step++ {
					if !more(x + step) {
						return
					}
				}
			}
		}
	}
	for x := int64(-1); x <= 1; x++ {
		if !more(x) {
			return
		}
	}
}

// narrowed returns the part of a range from which a field is drawn: the whole where
// both ends are feasible, and otherwise what lies around a value that is. It is
// empty where none is found.
func (m *maker) narrowed(field *fieldNode, f *frame, low, high int64) (int64, int64) {
	if len(field.conditions) == 0 {
		return low, high
	}
	feasible := func(x int64) bool { return x >= low && x <= high && m.feasible(field, f, x) }
	first, last := feasible(low), feasible(high)
	switch {
	case first && last:
		return low, high
	case first:
		return low, border(low, high, feasible)
	case last:
		return border(high, low, feasible), high
	}
	inside, found := int64(0), false
	likely(low, high, f, func(x int64) bool {
		inside, found = x, feasible(x)
		return !found
	})
	if !found {
		if inside, found = m.equal(field, f, low, high); !found || !feasible(inside) {
			return 1, 0
		}
	}
	return border(inside, low, feasible), border(inside, high, feasible)
}

// border returns the last value on the way from good, which is feasible, to bad,
// which is not, found by halving the way.
func border(good, bad int64, feasible func(int64) bool) int64 {
	for {
		middle := good/2 + bad/2 + (good%2+bad%2)/2
		if middle == good || middle == bad {
			return good
		}
		if feasible(middle) {
			good = middle
		} else {
			bad = middle
		}
	}
}

// equal looks for a value that makes both sides of a required equation alike, where
// their difference grows or falls.
func (m *maker) equal(field *fieldNode, f *frame, low, high int64) (int64, bool) {
	d := &f.data[field.slot]
	defer func() { d.ints = d.ints[:0] }()
	for _, c := range field.conditions {
		e, ok := c.expr.(*binary)
		if !ok || e.op != "=" {
			continue
		}
		difference := func(x int64) (int64, bool) {
			d.ints = append(d.ints[:0], x)
			n, wrong := evaluated(&binary{pos: e.pos, op: "-", x: e.x, y: e.y}, f)
			return n, wrong == nil
		}
		from, ok := difference(low)
		to, ok2 := difference(high)
		if !ok || !ok2 || (from < 0) == (to < 0) {
			continue
		}
		x := border(low, high, func(x int64) bool {
			n, ok := difference(x)
			return ok && (n < 0) == (from < 0)
		})
		for _, x := range []int64{x, x + 1, x - 1} {
			if n, ok := difference(x); ok && n == 0 && x >= low && x <= high {
				return x, true
			}
		}
	}
	return 0, false
}

// unmetBy says which condition leaves no value for a field.
func (m *maker) unmetBy(field *fieldNode, f *frame) *unmet {
	low, high := field.Value.bounds(f)
	u := &unmet{pos: field.Pos, text: orThis(field.Name) + " has no value", hopeless: true}
	for _, c := range field.conditions {
		d := &f.data[field.slot]
		d.ints = append(d.ints[:0], low)
		later, n := unknown(c, f)
		if lost := n == 0 && !c.met(f) || n == 1 && !m.hasValue(later, f); lost {
			d.ints = d.ints[:0]
			u.pos, u.text = c.pos, c.text
			u.now = ": with " + orThis(field.Name) + " from " + (&rangeNode{Low: field.Value.lowEnd(), High: field.Value.highEnd()}).shown(low, high)
			break
		}
		d.ints = d.ints[:0]
	}
	return u
}

func (v *valueNode) lowEnd() exprNode {
	if v.Range == nil {
		return &number{value: -1 << 63}
	}
	return v.Range.Low
}

func (v *valueNode) highEnd() exprNode {
	if v.Range == nil {
		return &number{value: 1<<63 - 1}
	}
	return v.Range.High
}

// mostScanned bounds how many values are tried one by one.
const mostScanned = 20_000

// scattered looks for a value that conditions hold for only here and there, as those of remainders do: one by one from
// any place, so that it is not always the same.
func (m *maker) scattered(field *fieldNode, f *frame, low, high int64) (int64, bool) {
	if low > high {
		return 0, false
	}
	from := m.between(low, high)
	for step := range int64(mostScanned) {
		for _, x := range []int64{from + step, from - step} {
			if x >= low && x <= high && m.feasible(field, f, x) {
				return x, true
			}
		}
	}
	return 0, false
}

package shape

import (
	"fmt"
	"slices"
)

// What a field holds in all bodies of a repeat is a column. An order, or distinct, that stands behind such a field goes
// down the column; before(x, 0) is what it holds in the body before, 0 in the first; and outside of the repeat its name
// is an array: sum(x), max(x), x[0], len(x).

// A columnNode is a field of a repeat with its column, an array in the block around.
type columnNode struct {
	field *fieldNode
	whole *fieldNode
}

// previous is what a field holds in the body before.
type previous struct {
	pos   Pos
	name  string
	first exprNode // in the first body
	up    int      // to the block around the repeat
	whole *fieldNode
}

func (e *previous) place() Pos     { return e.pos }
func (e *previous) String() string { return "before(" + e.name + ", " + e.first.String() + ")" }

func (e *previous) eval(f *frame) int64 {
	ints := f.up(e.up).data[e.whole.slot].ints
	if len(ints) == 0 {
		return e.first.eval(f)
	}
	return ints[len(ints)-1]
}

// direct are the fields on the lines of a repeat that hold a single value.
func (item *repeatNode) direct(do func(line int, f *fieldNode)) {
	for i, inner := range item.Items {
		line, ok := inner.(*lineNode)
		if !ok {
			continue
		}
		for _, f := range line.Fields {
			if f.Value != nil && f.Value.traits().element && len(f.Value.Dims) == 0 && f.Value.Base != typeText {
				do(i, f)
			}
		}
	}
}

// column returns the column of a field, which is made when it is asked for first.
func (item *repeatNode) column(f *fieldNode) *fieldNode {
	for _, c := range item.columns {
		if c.field == f {
			return c.whole
		}
	}
	v := *f.Value
	v.Dims = []*lengthNode{item.Count}
	whole := &fieldNode{Pos: f.Pos, Name: f.Name, Value: &v, slot: item.around.slot(), needed: true}
	item.columns = append(item.columns, &columnNode{f, whole})
	return whole
}

// columnNamed finds a column by the name of its field, among the repeats that were read in this block and those around.
func (r *resolver) columnNamed(name string) (up int, whole *fieldNode) {
	for b := r.now; b != nil; b = b.above {
		for _, item := range b.repeats {
			var found *fieldNode
			item.direct(func(_ int, f *fieldNode) {
				if f.Name == name {
					found = f
				}
			})
			if found != nil {
				return up, item.column(found)
			}
		}
		up++
	}
	return 0, nil
}

// findBefore finds the column that before names: of the innermost repeat around with such a field.
func (r *resolver) findBefore(e *previous) {
	up := 0
	for b := r.now; b != nil; b = b.above {
		up++
		if b.of == nil {
			continue
		}
		var found *fieldNode
		b.of.direct(func(_ int, f *fieldNode) {
			if f.Name == e.name {
				found = f
			}
		})
		if found == nil {
			continue
		}
		if found.Value.Base != typeInt {
			r.wrong(e.pos, "before takes the name of an int, and %s is %s", e.name, found.Value.Base)
		}
		e.up, e.whole = up, b.of.column(found)
		found.chained = true
		return
	}
	r.wrong(e.pos, "before takes the name of a value in the repeat around it, and there is no %s", e.name)
}

// gather adds the values of a body to the columns of its repeat.
func (item *repeatNode) gather(f, body *frame) {
	for _, c := range item.columns {
		d, one := &f.data[c.whole.slot], &body.data[c.field.slot]
		d.ints, d.texts = append(d.ints, one.ints...), append(d.texts, one.texts...)
		d.count++
	}
}

// forget empties the columns, before the first body.
func (item *repeatNode) forget(f *frame) {
	for _, c := range item.columns {
		f.data[c.whole.slot] = datum{}
	}
}

// inColumns checks the order of the columns; from are the lines on which bodies begin.
func (c *checker) inColumns(item *repeatNode, f *frame, from []int) {
	line := c.line
	for _, col := range item.columns {
		if v := col.whole.Value; !v.Distinct && !v.inOrder() {
			continue
		}
		c.ordered(col.whole, &f.data[col.whole.slot], f, func(i int) { c.line, c.nth = from[i], item.nth(col.field) })
	}
	c.line = line
}

// nth is which value of the first line of a body a field is, from 1; 0 where it stands on another.
func (item *repeatNode) nth(field *fieldNode) int {
	for i, f := range item.Items[0].(*lineNode).Fields {
		if f == field {
			return i + 1
		}
	}
	return 0
}

// planned fills the columns that are in order, or of different values, for n bodies, where their bounds do not depend
// on the body. They are taken from there, value by value.
func (m *maker) planned(item *repeatNode, f *frame, n int64) *unmet {
	body := newFrame(item.body, f)
	for _, c := range item.columns {
		v := c.whole.Value
		if !v.Distinct && !v.inOrder() {
			continue
		}
		plan := column{strict: true}
		var wrong *unmet
		why := attempt(func() {
			d := &datum{}
			wrong = v.Base.of().fill(m, c.whole, d, body, int(n))
			plan.values, plan.texts = d.ints, d.texts
		})
		if _, ok := expected[trouble](why); ok {
			continue // it depends on the body
		}
		if why != nil {
			panic(why)
		}
		if wrong != nil {
			return wrong
		}
		m.columns[c.field] = plan
	}
	return nil
}

// fromPlan takes a text from what was planned for a column.
func (m *maker) fromPlan(field *fieldNode, f *frame, d *datum) bool {
	c, ok := m.columns[field]
	if !ok || !c.strict || f.at >= int64(len(c.texts)) {
		return false
	}
	text := c.texts[f.at]
	d.texts, d.count = append(d.texts[:0], text), 1
	if s := field.Value.Set; s != nil {
		d.count = s.count([]byte(text))
	}
	return true
}

// inTurn narrows a range to what may follow in a column that is in order: a part of what is left, so that the bodies to
// come have their own.
func (m *maker) inTurn(field *fieldNode, f *frame, low, high int64) (int64, int64) {
	v := field.Value
	if !v.inOrder() || m.around == nil {
		return low, high
	}
	ints := f.above.data[m.around.column(field).slot].ints
	if len(ints) == 0 {
		return low, high
	}
	last := ints[len(ints)-1]
	switch {
	case v.Sorted:
		low = max(low, last)
	case v.Rising:
		low = max(low, last+1)
	default:
		high = min(high, last-1)
	}
	if part := int64(uint64(high-low) / uint64(max(1, m.bodiesLeft))); part > 0 && v.Falling {
		low = high - part
	} else if part > 0 {
		high = low + part
	}
	return low, high
}

// taken reports that a column of different values has a value already.
func (m *maker) taken(field *fieldNode, f *frame, x int64) bool {
	if !field.Value.Distinct || m.around == nil {
		return false
	}
	return slices.Contains(f.above.data[m.around.column(field).slot].ints, x)
}

// columnsHold reports which column is not as it has to be.
func (item *repeatNode) columnsHold(f *frame) *unmet {
	for _, c := range item.columns {
		v, d := c.whole.Value, &f.data[c.whole.slot]
		if !v.Distinct && !v.inOrder() {
			continue
		}
		fault := attempt(func() {
			(&checker{scanner: &scanner{}}).ordered(c.whole, d, f, func(int) {})
		})
		if why, ok := expected[*Fault](fault); ok {
			return &unmet{pos: c.field.Pos, text: fmt.Sprintf("a column of %s (%s)", orThis(c.field.Name), why.Text)}
		}
	}
	return nil
}

// columnIsFree reports that an array is no column, or one whose values nothing else in a body is tied to.
func columnIsFree(list []node, whole *fieldNode) bool {
	for _, item := range list {
		item, ok := item.(*repeatNode)
		if !ok {
			continue
		}
		for _, c := range item.columns {
			if c.whole == whole {
				return !dependsOn(item.Items, c.field) && len(item.body.conditions) == 0 && !item.Distinct && !item.HasUntil
			}
		}
	}
	return true
}

// putBack gives the bodies of repeats what their columns hold, which may have been changed.
func putBack(list []node, f *frame) {
	for _, item := range list {
		item, ok := item.(*repeatNode)
		if !ok {
			continue
		}
		for _, c := range item.columns {
			for i, x := range f.data[c.whole.slot].ints {
				f.data[item.slot].bodies[i].data[c.field.slot].ints[0] = x
			}
		}
	}
}

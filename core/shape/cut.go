package shape

import (
	"cmp"
	"slices"
)

// A cut takes the things from i to j, counted from 0, out of all that a count
// counts: elements, rows, characters, bodies, edges, vertices.
type cut struct {
	i, j int
	// contract joins the neighbours of a vertex that is taken out, where otherwise
	// its edges go.
	contract bool
	// raise makes the integers that are left as large as they may be, since fewer but
	// larger ones may do as well.
	raise bool
}

// items makes what lies in a frame as long as the changed count says. old is the
// frame before the change. It reports false where it would have to become longer.
func (c *cut) items(list []node, old, now *frame) bool {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				if f.Value != nil && !f.Value.Base.of().cut(c, f, old, now) {
					return false
				}
			}
			continue
		case *repeatNode:
			if item.Count.Exact != nil {
				d := &now.data[item.slot]
				i, j, ok := c.part(len(d.bodies), item.Count.Exact.eval(now))
				if !ok {
					return false
				}
				d.bodies = slices.Delete(d.bodies, i, j)
				rest := slices.Delete(slices.Clone(old.data[item.slot].bodies), i, j)
				for b := range rest {
					if !c.items(item.Items, rest[b], d.bodies[b]) {
						return false
					}
				}
				continue
			}
		}
		slot, inner := blockOf(item, now)
		if inner == nil {
			continue
		}
		for b := range now.data[slot].bodies {
			if !c.items(inner, old.data[slot].bodies[b], now.data[slot].bodies[b]) {
				return false
			}
		}
	}
	return true
}

// part returns which of so many things go, so that as many are left as are wanted.
func (c *cut) part(have int, want int64) (i, j int, ok bool) {
	gone := have - int(want)
	if want < 0 || gone < 0 {
		return 0, 0, false
	}
	if c.j-c.i > 0 && gone > c.j-c.i { // several for each
		i = c.i * (gone / (c.j - c.i))
	} else {
		i = c.i
	}
	i = min(i, have-gone)
	return i, i + gone, true
}

// elements makes a single value, or an array, follow.
func (c *cut) elements(f *fieldNode, now *frame) bool {
	v, d := f.Value, &now.data[f.slot]
	if len(v.Dims) == 0 {
		if v.Length != nil && v.Length.Exact != nil {
			d.count = v.Length.Exact.eval(now)
			return c.characters(d, d.count)
		}
		return true
	}
	if v.Length != nil && v.Length.Exact != nil && !c.characters(d, v.Length.Exact.eval(now)) {
		return false
	}
	if v.Dims[0].Exact == nil {
		return true
	}
	rows := v.Dims[0].Exact.eval(now)
	columns := int64(1)
	if len(v.Dims) == 2 && d.count > 0 {
		columns = int64(d.size()) / d.count
	}
	i, j, ok := c.part(int(d.count), rows)
	if !ok {
		return false
	}
	d.delete(i*int(columns), j*int(columns))
	d.count = rows
	if len(v.Dims) == 2 && v.Dims[1].Exact != nil {
		if wanted := v.Dims[1].Exact.eval(now); wanted != columns {
			return c.columns(d, int(columns), wanted)
		}
	}
	return true
}

// delete leaves out single values.
func (d *datum) delete(i, j int) {
	if len(d.texts) > 0 {
		d.texts = slices.Delete(d.texts, i, j)
	} else {
		d.ints = slices.Delete(d.ints, i, j)
	}
}

func (c *cut) columns(d *datum, have int, want int64) bool {
	i, j, ok := c.part(have, want)
	if !ok || have == 0 {
		return ok
	}
	for row := d.size()/have - 1; row >= 0; row-- {
		d.delete(row*have+i, row*have+j)
	}
	return true
}

// characters makes all texts as long as wanted.
func (c *cut) characters(d *datum, want int64) bool {
	for t, text := range d.texts {
		r := []rune(text)
		if int64(len(r)) == want {
			continue
		}
		i, j, ok := c.part(len(r), want)
		if !ok {
			return false
		}
		d.texts[t] = string(slices.Delete(r, i, j))
	}
	return true
}

// perm takes places out of a permutation and closes the gaps between its values.
func (c *cut) perm(v *valueNode, d *datum, now *frame) bool {
	n := v.Args[0].eval(now)
	i, j, ok := c.part(len(d.ints), n)
	if !ok {
		return false
	}
	d.count = n
	if i == j {
		return true
	}
	ints := slices.Delete(d.ints, i, j)
	order := make([]int32, len(ints))
	for k := range order {
		order[k] = int32(k)
	}
	slices.SortFunc(order, func(a, b int32) int { return cmp.Compare(ints[a], ints[b]) })
	for rank, k := range order {
		ints[k] = v.From + int64(rank)
	}
	d.ints = ints
	return true
}

// labels closes the gap that a cut makes in integers that seem to number the things
// that are cut, since they go up to their count; those in the gap go to its end.
func (c *cut) labels(v *valueNode, d *datum, old, now *frame) {
	if c.raise && v.Range != nil {
		for k := range d.ints {
			d.ints[k] = v.Range.High.eval(now)
		}
		return
	}
	if v.Range == nil || isConstant(v.Range.High) || v.Range.High.eval(old)-v.Range.High.eval(now) != int64(c.j-c.i) {
		return
	}
	from := int64(1)
	if low, ok := constant(v.Range.Low); ok && low == 0 {
		from = 0
	}
	first, behind := from+int64(c.i), from+int64(c.j)
	for k, x := range d.ints {
		switch {
		case x >= behind:
			d.ints[k] = x - int64(c.j-c.i)
		case x >= first:
			d.ints[k] = first
		}
	}
}

// graph takes vertices or edges out. Where the number of edges has a name, it
// follows.
func (c *cut) graph(f *fieldNode, old, now *frame) bool {
	v, d := f.Value, &now.data[f.slot]
	edges := d.ints
	if v.Base == typeParents {
		edges = edgesOf(d.ints, v.From)
	}
	kept := make([]int, len(edges)/2) // the edges that are left, by their numbers before
	for i := range kept {
		kept[i] = i
	}
	before, after := v.Args[0].eval(old), v.Args[0].eval(now)
	if after > before || after < 0 {
		return false
	}
	if after < before {
		i, j, ok := c.part(int(before), after)
		if !ok {
			return false
		}
		edges, kept = takeOut(edges, v, int(before), i, j, c.contract || v.Base != typeGraph)
	}
	if v.Base == typeGraph {
		if r, ok := v.Args[1].(*reference); ok && r.index == nil && after < before {
			r.datum(now).ints[0] = int64(len(kept))
		}
		i, j, ok := c.part(len(kept), v.Args[1].eval(now))
		if !ok {
			return false
		}
		edges, kept = slices.Delete(edges, 2*i, 2*j), slices.Delete(kept, i, j)
	}
	d.ints, d.count = edges, int64(len(kept))
	if v.Base == typeParents {
		d.ints = parentsFrom(edges, int(after), v.From)
	}
	for _, w := range v.With {
		if w.Value != nil {
			now.data[w.slot].keep(kept)
		}
	}
	return true
}

// keep leaves only some elements.
func (d *datum) keep(kept []int) {
	for to, from := range kept {
		if len(d.texts) > 0 {
			d.texts[to] = d.texts[from]
		} else if len(d.ints) > 0 {
			d.ints[to] = d.ints[from]
		}
	}
	if len(d.texts) > 0 {
		d.texts = d.texts[:len(kept)]
	} else {
		d.ints = d.ints[:min(len(kept), len(d.ints))]
	}
	d.count = int64(len(kept))
}

// edgesOf are the edges from parents to the vertices behind the first.
func edgesOf(parents []int64, from int64) []int64 {
	edges := make([]int64, 0, 2*len(parents))
	for i, p := range parents {
		edges = append(edges, p, from+int64(i)+1)
	}
	return edges
}

func parentsFrom(edges []int64, n int, from int64) []int64 {
	ends := make([]int32, len(edges))
	for i, v := range edges {
		ends[i] = int32(v - from)
	}
	parents := parentsOf(ends, n)
	for i := range parents {
		parents[i] += from
	}
	return parents
}

// takeOut takes the vertices i to j - 1, counted from 0, out of a graph, and closes
// the gap in the labels. Their edges go, or, contracted, lead to where each of them
// is joined to a vertex that stays. It returns the edges that are left and which they
// were.
func takeOut(edges []int64, v *valueNode, n, i, j int, contract bool) (left []int64, kept []int) {
	to := make([]int, n) // where the edges of a vertex lead
	for x := range to {
		if to[x] = x; x >= i && x < j {
			to[x] = -1
		}
	}
	if contract {
		leadOn(edges, v.From, to)
	}
	label := func(x int) int64 {
		if x >= j {
			x -= j - i
		}
		return v.From + int64(x)
	}
	seen := map[[2]int]bool{}
	for e := range len(edges) / 2 {
		x, y := to[edges[2*e]-v.From], to[edges[2*e+1]-v.From]
		if x < 0 || y < 0 {
			continue
		}
		lost := edges[2*e] != edges[2*e+1] && x == y // it was contracted
		pair := [2]int{x, y}
		if !v.Directed && x > y {
			pair = [2]int{y, x}
		}
		if lost || !v.Parallel && seen[pair] {
			continue
		}
		seen[pair] = true
		left = append(left, label(x), label(y))
		kept = append(kept, e)
	}
	return left, kept
}

// leadOn finds, for each vertex that goes (-1), the nearest one that stays, and the
// same for all that are joined through it.
func leadOn(edges []int64, from int64, to []int) {
	next := make([][]int32, len(to))
	for e := 0; e < len(edges); e += 2 {
		x, y := edges[e]-from, edges[e+1]-from
		next[x] = append(next[x], int32(y))
		next[y] = append(next[y], int32(x))
	}
	var waiting []int32
	for x := range to {
		if to[x] == x {
			waiting = append(waiting, int32(x))
		}
	}
	for len(waiting) > 0 {
		x := waiting[0]
		waiting = waiting[1:]
		for _, y := range next[x] {
			if to[y] < 0 {
				to[y] = to[x]
				waiting = append(waiting, y)
			}
		}
	}
}

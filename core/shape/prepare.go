package shape

import (
	"slices"
)

// A condition is something that must hold in a block: a requirement that is written
// there, or one that is implied, such as that a range is not empty, or that a
// simple graph has room for its edges.
type condition struct {
	pos   Pos
	text  string
	refs  []*reference
	holds func(f *frame) bool // an expression without a value does not hold
	expr  exprNode            // of a requirement that is written
	// deep says that it is about more than single integers, so that it can be held
	// against what was generated only.
	deep  bool
	total bool // of what a case may add to a total
}

// prepare finds what must hold for an input that is to be generated.
func (s *Shape) prepare() {
	p := preparer{now: s.top}
	p.items(s.Items)
	s.styles = s.stylesOfAll()
	s.largest = s.largestCount()
}

type preparer struct {
	now   *block
	texts []textIn // before what is prepared
}

func (p *preparer) inside(b *block, do func()) {
	above := p.now
	p.now = b
	do()
	p.now = above
}

func (p *preparer) items(list []node) {
	for _, item := range list {
		switch item := item.(type) {
		case *lineNode:
			for _, f := range item.Fields {
				p.field(f)
			}
		case *casesNode:
			p.field(item.Count)
			p.inside(item.body, func() {
				p.items(item.Items)
				p.totals(item.Totals)
			})
		case *repeatNode:
			p.length(item.Count)
			p.inside(item.body, func() {
				p.items(item.Items)
				p.totals(item.Totals)
			})
			for _, c := range item.columns {
				c.whole.styles = stylesOf(c.whole, false)
			}
		case *eitherNode:
			item.styles = branchStyles(item)
			for i, branch := range item.Branches {
				p.inside(item.bodies[i], func() { p.items(branch) })
			}
		case *requireNode:
			p.must(item.Pos, "require "+item.text, false, func(f *frame) bool { return item.Cond.eval(f) != 0 }, item.Cond)
			last := p.now.conditions[len(p.now.conditions)-1]
			last.expr = item.Cond
		}
	}
}

// totals bound what a body may add.
func (p *preparer) totals(list []*totalNode) {
	for k, t := range list {
		left := t.Left
		if c, ok := left.(*call); ok && len(c.args) == 1 && c.name != "abs" {
			switch r := c.args[0].(*reference); {
			case r.up > 0:
			case c.name == "len":
				r.field.total = k + 1
			case c.name == "sum":
				r.field.summed = k + 1
			}
		}
		p.must(t.Pos, "total "+left.String(), true, func(f *frame) bool {
			return f.allowed == nil || left.eval(f) <= f.allowed[k]
		}, left)
		if n := len(p.now.conditions); n > 0 && p.now.conditions[n-1].pos == t.Pos {
			p.now.conditions[n-1].total = true
		}
	}
}

// must adds a condition about some expressions.
func (p *preparer) must(pos Pos, text string, implied bool, holds func(f *frame) bool, about ...exprNode) {
	c := &condition{pos: pos, text: text, holds: holds}
	for _, e := range about {
		eachReference(e, func(r *reference) {
			c.refs = append(c.refs, r)
			c.deep = c.deep || r.index != nil
		})
	}
	for _, r := range c.refs {
		if !r.field.single() {
			c.deep = true
		}
	}
	if implied && len(c.refs) == 0 {
		return
	}
	p.now.conditions = append(p.now.conditions, c)
	for _, r := range c.refs {
		if r.up == 0 && !c.deep && !slices.Contains(r.field.conditions, c) {
			r.field.conditions = append(r.field.conditions, c)
		}
	}
}

// met reports whether a condition holds; one that has no value does not.
func (c *condition) met(f *frame) (ok bool) {
	_, failed := expected[trouble](attempt(func() { ok = c.holds(f) }))
	return ok && !failed
}

func (p *preparer) field(f *fieldNode) {
	v := f.Value
	if v == nil {
		return
	}
	p.text(f)
	f.styles = stylesOf(f, false)
	if v.Range != nil && (v.Base == typeInt || v.Base == typePick) && !v.changing() {
		p.notEmpty(v.Range)
	}
	if len(v.Dims) == 0 && !f.ofEdges {
		for _, e := range v.But {
			own := &reference{pos: e.place(), name: f.Name, field: f}
			if wholeArray(e) != nil {
				v := f.Value
				p.must(e.place(), orThis(f.Name)+" is none of "+e.String(), true, func(in *frame) bool {
					_, out := v.excluded(in, own.eval(in))
					return !out
				}, own)
				continue
			}
			p.must(e.place(), orThis(f.Name)+" is not "+e.String(), true, func(in *frame) bool { return own.eval(in) != e.eval(in) }, own, e)
		}
	}
	if v.Length != nil {
		p.length(v.Length)
	}
	for _, d := range v.Dims {
		p.length(d)
	}
	for _, a := range v.Args {
		if v.traits().name {
			break
		}
		p.length(&lengthNode{Exact: a})
	}
	for _, w := range v.With {
		p.field(w)
	}
	if (v.Distinct || v.Rising || v.Falling) && v.DistinctBut == nil && !v.changing() {
		p.distinct(v)
	}
	if v.Base == typeGraph {
		p.graph(f)
	}
}

func (p *preparer) notEmpty(g *rangeNode) {
	p.must(g.Pos, g.text+" is a range", true, func(f *frame) bool { return g.Low.eval(f) <= g.High.eval(f) }, g.Low, g.High)
}

func (p *preparer) length(l *lengthNode) {
	if l.Range != nil {
		p.notEmpty(l.Range)
		return
	}
	p.must(l.Exact.place(), l.Exact.String()+" >= 0", true, func(f *frame) bool { return l.Exact.eval(f) >= 0 }, l.Exact)
}

// distinct wants as many values as there are elements.
func (p *preparer) distinct(v *valueNode) {
	last := len(v.Dims) - 1
	if last < 0 || last > 0 && !v.ByRow || v.Dims[last].Exact == nil {
		return
	}
	n := v.Dims[last].Exact
	switch {
	case v.Base == typeInt && v.Range != nil:
		p.must(v.Pos, "enough distinct integers", true, func(f *frame) bool {
			need, low, high := n.eval(f), v.Range.Low.eval(f), v.Range.High.eval(f)
			return need <= 0 || low <= high && uint64(need-1) <= uint64(high)-uint64(low)
		}, n, v.Range.Low, v.Range.High)
	case v.Base == typeToken || v.Base == typeDigits:
		about := []exprNode{n}
		most := v.Length.Exact
		if most == nil {
			most = v.Length.Range.High
		}
		p.must(v.Pos, "enough distinct words", true, func(f *frame) bool {
			return uint64(max(0, n.eval(f))) <= v.words(v.lengths(f))
		}, append(about, most)...)
	}
}

// lengths returns how long a word is at the least and at the most.
func (v *valueNode) lengths(f *frame) [2]int64 {
	if e := v.Length.Exact; e != nil {
		n := e.eval(f)
		return [2]int64{n, n}
	}
	return [2]int64{v.Length.Range.Low.eval(f), v.Length.Range.High.eval(f)}
}

// words counts the tokens of a value of so many characters; at most 2^62.
func (v *valueNode) words(lengths [2]int64) uint64 {
	all := wordsOf(len(v.Set.Runes), lengths)
	if v.Base != typeDigits || all == 1<<62 {
		return all
	}
	// All but one in so many do not begin with 0, and so does the single 0.
	base := uint64(len(v.Set.Runes))
	return all/base*(base-1) + uint64(truth(lengths[0] <= 1 && lengths[1] >= 1))
}

// wordsOf counts words over so many characters; at most 2^62.
func wordsOf(letters int, lengths [2]int64) (count uint64) {
	const most = 1 << 62
	if letters == 1 { // one of each length
		return uint64(lengths[1]-lengths[0]) + 1
	}
	one := uint64(1)
	for n := int64(0); n <= lengths[1]; n++ {
		if n >= lengths[0] {
			count += one
		}
		if count >= most || one > most/uint64(letters) {
			return most
		}
		one *= uint64(letters)
	}
	return count
}

// graph wants a number of edges that the graph has room for.
func (p *preparer) graph(field *fieldNode) {
	v := field.Value
	n, m := v.Args[0], v.Args[1]
	p.must(v.Pos, "a graph that has room for its edges", true, func(f *frame) bool {
		least, most := v.edgeBounds(n.eval(f))
		count := m.eval(f)
		return least <= count && count <= most
	}, n, m)
	if r, ok := m.(*reference); ok && r.index == nil && r.up == 0 {
		r.field.edgesOf = field
	}
}

// edgeBounds are how many edges a graph of n vertices has at the least and at the
// most.
func (v *valueNode) edgeBounds(n int64) (least, most int64) {
	const unbounded = 1 << 62
	if v.Connected {
		least = max(0, n-1)
	}
	if n <= 0 {
		return 0, 0
	}
	pairs := func(x, y int64) int64 {
		if p, ok := arithmetic("*", x, y); ok {
			return p
		}
		return unbounded
	}
	switch {
	case v.Acyclic && !v.Directed:
		most = n - 1
	case v.Parallel && (n > 1 || v.Loops):
		most = unbounded
	case v.Bipartite && v.Directed && !v.Acyclic:
		most = pairs(n, n) / 2
		if n%2 == 1 {
			most = pairs(n-1, n+1) / 2
		}
	case v.Bipartite:
		most = pairs(n/2, n-n/2)
	case v.Directed && !v.Acyclic:
		most = pairs(n, n-1)
	default:
		most = pairs(n, n-1) / 2
	}
	if v.Loops && !v.Parallel && !v.Acyclic && !v.Bipartite {
		most = min(unbounded, most+n)
	}
	return least, most
}

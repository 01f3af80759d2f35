package shape

import (
	"slices"
)

// A forest keeps disjoint sets of vertices, counted from 0, with the parity of the
// way to each set's root: union by size with path halving (Tarjan and van Leeuwen,
// 1984), nearly constant time a step. What it takes depends on the vertices that
// are named, not on how many there are said to be.
type forest struct {
	numbers map[int64]int64 // of the vertices; nil: each is its own
	parent  []int32
	size    []int32
	odd     []bool // whether the way to the parent has an odd number of edges
}

func newForest(n int64) *forest {
	s := &forest{}
	if n > 1<<22 {
		s.numbers = map[int64]int64{}
	}
	return s
}

// number makes room for a vertex, and returns its number.
func (s *forest) number(v int64) int64 {
	n := v
	if s.numbers != nil {
		var ok bool
		if n, ok = s.numbers[v]; !ok {
			n = int64(len(s.parent))
			s.numbers[v] = n
		}
	}
	for int64(len(s.parent)) <= n {
		s.parent = append(s.parent, int32(len(s.parent)))
		s.size = append(s.size, 1)
		s.odd = append(s.odd, false)
	}
	return n
}

// root returns the root of a vertex's set, and the parity of the way there.
func (s *forest) root(x int64) (root int32, odd bool) {
	v := int32(s.number(x))
	for s.parent[v] != v {
		p := s.parent[v]
		if s.parent[p] != p { // halve the way
			s.odd[v] = s.odd[v] != s.odd[p]
			s.parent[v] = s.parent[p]
			p = s.parent[v]
		}
		odd = odd != s.odd[v]
		v = p
	}
	return v, odd
}

// join puts an edge between two vertices, and reports whether they lay in
// different sets.
func (s *forest) join(a, b int64) bool {
	joined, _ := s.joinEven(a, b)
	return joined
}

// joinEven also reports whether the edge closes no cycle of odd length.
func (s *forest) joinEven(a, b int64) (joined, even bool) {
	x, oddX := s.root(a)
	y, oddY := s.root(b)
	if x == y {
		return false, oddX != oddY
	}
	if s.size[x] < s.size[y] {
		x, y = y, x
	}
	s.parent[y] = x
	s.odd[y] = oddX == oddY
	s.size[x] += s.size[y]
	return true, true
}

// An edgeSet takes an edge, and reports whether it is new.
type edgeSet func(a, b int64) bool

// newEdgeSet returns one for about m edges between n vertices, counted from 0. The
// two ends are one number where they fit into one.
func newEdgeSet(n, m int64) edgeSet {
	if n >= 1<<31 {
		seen := map[[2]int64]bool{}
		return func(a, b int64) bool {
			before := seen[[2]int64{a, b}]
			seen[[2]int64{a, b}] = true
			return !before
		}
	}
	seen := newNumbers(int(min(m, 1<<16)))
	return func(a, b int64) bool { return seen.add(uint64(a)*uint64(n) + uint64(b)) }
}

// An edgeReader reads the lines of one tree or graph, an edge a line.
type edgeReader struct {
	c       *checker
	field   *fieldNode
	d       *datum
	n       int64 // vertices
	sets    *forest
	parts   int64          // that are not connected yet
	seen    edgeSet        // nil: an edge may come again
	index   *valueReader   // names the vertex that is read
	weights []*valueReader // of what stands behind an edge
}

// edges reads the lines of a tree or a graph.
func (c *checker) edges(field *fieldNode, d *datum, f *frame) {
	v := field.Value
	n := c.size(v.Args[0], f)
	m := max(0, n-1)
	if v.Base == typeGraph {
		m = c.size(v.Args[1], f)
	}
	r := edgeReader{c: c, field: field, d: d, n: n, sets: newForest(n), parts: n, index: &valueReader{checker: c, field: field}}
	if v.Base != typeTree && !v.Parallel {
		r.seen = newEdgeSet(n, m)
	}
	r.weights = make([]*valueReader, len(v.With))
	for k, w := range v.With {
		if w.Value != nil && m > 0 {
			r.weights[k] = c.reader(w, f)
		}
	}
	from := c.line
	c.lines(m, func(i int64) {
		r.edge(i)
		r.behind(i, f)
	})
	d.count = m
	c.nth = 0
	if v.Connected && r.parts > 1 {
		c.line = from
		c.fault(field.Name, "the graph is not connected: it has %d components", r.parts)
	}
	if v.Directed && v.Acyclic {
		c.cyclic(field, d, from)
	}
}

// edge reads the two ends of an edge, and checks what they must be.
func (r *edgeReader) edge(i int64) {
	c, v := r.c, r.field.Value
	name := r.index.name
	var ends [2]int64
	for k := range ends {
		c.begin(k == 0)
		r.index.index = i
		x := c.integer(name)
		if x < v.From || x-v.From >= r.n {
			c.fault(name(), "vertex %d is outside %d..%d", x, v.From, v.From+r.n-1)
		}
		ends[k] = x - v.From
	}
	a, b := ends[0], ends[1]
	r.d.ints = append(r.d.ints, a+v.From, b+v.From)
	if a == b && !v.Loops {
		c.fault(name(), "an edge leads from %d to itself", a+v.From)
	}
	joined, even := r.sets.joinEven(a, b)
	if joined {
		r.parts--
	}
	switch {
	case v.Base == typeTree && !joined:
		c.fault(name(), "this is no tree: the edge %d %d closes a cycle", a+v.From, b+v.From)
	case v.Acyclic && !v.Directed && !joined:
		c.fault(name(), "the graph is not acyclic: the edge %d %d closes a cycle", a+v.From, b+v.From)
	case v.Bipartite && !even:
		c.fault(name(), "the graph is not bipartite: the edge %d %d closes a cycle of odd length", a+v.From, b+v.From)
	}
	if r.seen == nil {
		return
	}
	low, high := a, b
	if low > high && !v.Directed {
		low, high = high, low
	}
	if !r.seen(low, high) {
		c.nth = 0
		c.fault(r.field.Name, "the edge %d %d comes a second time", a+v.From, b+v.From)
	}
}

// behind reads what stands behind the two ends of edge i.
func (r *edgeReader) behind(i int64, f *frame) {
	for k, w := range r.field.Value.With {
		if w.Value == nil {
			r.c.literal(w.Literal, false)
			continue
		}
		into := &f.data[w.slot]
		r.c.begin(false)
		r.weights[k].one(into, i)
		into.count = i + 1
	}
}

// cyclic looks for a cycle of directed edges, by taking away vertices to which no
// edge leads (Kahn, 1962).
func (c *checker) cyclic(field *fieldNode, d *datum, from int) {
	// Only vertices with an edge can lie on a cycle.
	named := slices.Compact(slices.Sorted(slices.Values(d.ints)))
	ends := make([]int32, len(d.ints))
	for i, v := range d.ints {
		at, _ := slices.BinarySearch(named, v)
		ends[i] = int32(at)
	}
	n := len(named)
	into := make([]int32, n)
	start := make([]int32, n+1)
	m := len(ends) / 2
	for i := range m {
		into[ends[2*i+1]]++
		start[ends[2*i]+1]++
	}
	for i := range n {
		start[i+1] += start[i]
	}
	next := make([]int32, m)
	at := slices.Clone(start)
	for i := range m {
		a := ends[2*i]
		next[at[a]] = ends[2*i+1]
		at[a]++
	}
	var free []int32
	for v := range into {
		if into[v] == 0 {
			free = append(free, int32(v))
		}
	}
	taken := 0
	for len(free) > 0 {
		v := free[len(free)-1]
		free = free[:len(free)-1]
		taken++
		for _, w := range next[start[v]:start[v+1]] {
			if into[w]--; into[w] == 0 {
				free = append(free, w)
			}
		}
	}
	if taken < n {
		c.line = from
		c.fault(field.Name, "the graph is not acyclic: it has a cycle of directed edges")
	}
}

package shape

import (
	"slices"
)

// treeStyles return the edges of a tree on the vertices 0 to n - 1, both ends one
// after the other. A style that is about labels makes sense with its own only.
var treeStyles = []style[func(r *random, n int) []int32]{
	{"path", true, inARow},
	{pathInOrder, true, inARow},
	{pathAgainst, true, inARow},
	{"star", true, func(_ *random, n int) []int32 { return grown(n, func(int) int { return 0 }) }},
	{"broom", true, func(_ *random, n int) []int32 { return grown(n, func(i int) int { return min(i-1, n/2) }) }},
	{"caterpillar", true, func(r *random, n int) []int32 {
		spine := max(1, n/2)
		return grown(n, func(i int) int {
			if i < spine {
				return i - 1
			}
			return r.index(spine)
		})
	}},
	{"binary", true, func(_ *random, n int) []int32 { return grown(n, func(i int) int { return (i - 1) / 2 }) }},
	{rootInTheMiddle, true, func(_ *random, n int) []int32 {
		return grown(n, func(i int) int { return max(0, i-2) }) // two paths from 0
	}},
	{"attached", false, func(r *random, n int) []int32 { return grown(n, func(i int) int { return r.index(i) }) }},
	{"uniform", true, uniformTree},
}

// The styles that are about the numbers of the vertices: along the path, against it behind the root, and shuffled but
// for the root.
const (
	pathInOrder     = "path-in-order"
	pathAgainst     = "path-against"
	rootInTheMiddle = "root-in-the-middle"
)

func inARow(_ *random, n int) []int32 { return grown(n, func(i int) int { return i - 1 }) }

// grown joins each vertex from 1 on to one before it.
func grown(n int, to func(i int) int) []int32 {
	edges := make([]int32, 0, 2*max(0, n-1))
	for i := 1; i < n; i++ {
		edges = append(edges, int32(to(i)), int32(i))
	}
	return edges
}

// uniformTree draws one of the n^(n-2) trees, each alike, by its code (Prüfer,
// 1918), in linear time.
func uniformTree(r *random, n int) []int32 {
	if n <= 2 {
		return grown(n, func(int) int { return 0 })
	}
	code := make([]int32, n-2)
	degree := make([]int32, n)
	for i := range code {
		code[i] = int32(r.index(n))
		degree[code[i]]++
	}
	edges := make([]int32, 0, 2*(n-1))
	next := 0 // below it every vertex without edges to come is used
	for degree[next] > 0 {
		next++
	}
	leaf := int32(next)
	for _, v := range code {
		edges = append(edges, leaf, v)
		if degree[v]--; degree[v] == 0 && int(v) < next {
			leaf = v
			continue
		}
		for next++; degree[next] > 0; next++ {
		}
		leaf = int32(next)
	}
	return append(edges, leaf, int32(n-1))
}

// A grapher makes the edges of a graph: those of a skeleton first, as its style
// says, and then any, as far as the graph may have them.
type grapher struct {
	*random
	v     *valueNode
	n, m  int
	edges []int32
	seen  *numbers // edges that there are, where none may come twice
	left  int      // vertices on the one side, of a bipartite graph: 0 to left - 1
}

// A graphStyle makes a skeleton.
type graphStyle struct {
	// edges is how many it has by itself; -1: as many as there are to be.
	edges func(n int64) int64
	// spans says that it joins all vertices; where it does not, it serves graphs
	// that need not be connected.
	spans    bool
	skeleton func(g *grapher)
}

func anyNumber(int64) int64 { return -1 }

var graphStyles = []style[graphStyle]{
	{"empty", true, graphStyle{func(int64) int64 { return 0 }, false, func(*grapher) {}}},
	{"path", true, graphStyle{func(n int64) int64 { return n - 1 }, true, func(g *grapher) { g.tree("path") }}},
	{"cycle", true, graphStyle{func(n int64) int64 { return n }, true, func(g *grapher) {
		g.tree("path")
		g.add(g.n-1, 0)
	}}},
	{"star", true, graphStyle{func(n int64) int64 { return n - 1 }, true, func(g *grapher) { g.tree("star") }}},
	{"complete", true, graphStyle{func(n int64) int64 { return min(n, 1<<20) * (min(n, 1<<20) - 1) / 2 }, true, func(g *grapher) { g.tree("uniform") }}},
	{"tree-and-one-edge", true, graphStyle{func(n int64) int64 { return n }, true, func(g *grapher) { g.tree("uniform") }}},
	{"components", true, graphStyle{anyNumber, false, (*grapher).components}},
	{"two-halves", true, graphStyle{func(n int64) int64 { return n - 2 + n%2 }, false, func(g *grapher) { g.halves(false) }}},
	{"bridge", true, graphStyle{func(n int64) int64 { return n + 1 }, true, func(g *grapher) { g.halves(true) }}},
	{"cycles-at-a-vertex", true, graphStyle{func(n int64) int64 { return n + (n-1)/3 }, true, (*grapher).cycles}},
	{"dense", false, graphStyle{func(n int64) int64 { return min(n, 1<<20) * (min(n, 1<<20) - 1) / 3 }, true, func(g *grapher) { g.tree("uniform") }}},
	{"sparse", false, graphStyle{func(n int64) int64 { return n + n/8 }, true, func(g *grapher) { g.tree("uniform") }}},
	{"grid-like", true, graphStyle{func(n int64) int64 { return 2*n - 2*root(n) }, true, (*grapher).gridLike}},
	{"self-loops", true, graphStyle{anyNumber, false, func(g *grapher) {
		for v := 0; v < g.n && g.v.Loops; v++ {
			g.add(v, v)
		}
	}}},
	{"same-edge", true, graphStyle{anyNumber, false, func(g *grapher) {
		for range g.m {
			if !g.add(0, min(1, g.n-1)) {
				return
			}
		}
	}}},
	{"random", true, graphStyle{anyNumber, true, func(g *grapher) {
		if g.v.Connected || g.v.Acyclic && !g.v.Directed {
			g.tree("uniform")
		}
	}}},
}

func root(n int64) int64 { return int64(rootOfProduct(uint64(max(0, n)), 1)) }

// serves reports whether a style can make a graph.
func (s graphStyle) serves(name string, v *valueNode) bool {
	switch {
	case name == "self-loops":
		return v.Loops && !v.Connected
	case name == "same-edge":
		return v.Parallel && !v.Connected
	}
	return s.spans || !v.Connected
}

// graphEdges makes m edges on the vertices 0 to n - 1. There is room for them.
func graphEdges(r *random, v *valueNode, n, m int, s graphStyle) []int32 {
	if v.Bipartite && v.Acyclic && !v.Directed { // all forests are
		forest := *v
		forest.Bipartite = false
		v = &forest
	}
	g := &grapher{random: r, v: v, n: n, m: m, edges: make([]int32, 0, 2*m), left: n}
	if !v.Parallel {
		g.seen = newNumbers(m)
	}
	if v.Bipartite {
		g.left = n / 2
		if few := 1 + r.index(max(1, n/2)); int64(few)*int64(n-few) >= int64(m) && !v.Directed {
			g.left = few
		}
		if v.Connected {
			g.joinSides()
		}
	} else {
		s.skeleton(g)
	}
	g.rest()
	return g.edges
}

// count is how many edges there are.
func (g *grapher) count() int { return len(g.edges) / 2 }

// add puts an edge where there may be one, and reports whether it did.
func (g *grapher) add(a, b int) bool {
	switch {
	case g.count() == g.m, a == b && !g.v.Loops, g.v.Bipartite && (a < g.left) == (b < g.left):
		return false
	case g.v.Acyclic && a > b, !g.v.Directed && a > b:
		a, b = b, a
	}
	if g.seen != nil && !g.seen.add(uint64(a)*uint64(g.n)+uint64(b)) {
		return false
	}
	g.edges = append(g.edges, int32(a), int32(b))
	return true
}

// tree adds the edges of a tree.
func (g *grapher) tree(name string) {
	edges := styleNamed(treeStyles, name)(g.random, g.n)
	way := g.below(3) // of directed edges: all forth, all back, any
	for i := 0; i+1 < len(edges); i += 2 {
		a, b := int(edges[i]), int(edges[i+1])
		if way == 1 || way == 2 && g.oneIn(2) {
			a, b = b, a
		}
		g.add(a, b)
	}
}

// joinSides joins all vertices of a bipartite graph, each to one of the other side
// that is joined already.
func (g *grapher) joinSides() {
	sides := [2][]int{}
	order := g.permutation(g.n)
	for i, v := range order { // the first two are of different sides
		if i > 0 && (int(v) < g.left) != (int(order[0]) < g.left) {
			order[1], order[i] = order[i], order[1]
			break
		}
	}
	for _, v := range order {
		side := truthOf(int(v) < g.left)
		if other := sides[1-side]; len(other) > 0 {
			g.add(int(v), other[g.index(len(other))])
		}
		sides[side] = append(sides[side], int(v))
	}
}

// halves makes two parts of the same size, of edges as many each; a bridge joins them where that is asked for, and
// otherwise a vertex too many stays alone.
func (g *grapher) halves(bridge bool) {
	half := g.n / 2
	if bridge && half > 0 {
		g.add(half-1, half)
	}
	second := half // vertices of the second part
	if bridge {
		second = g.n - half
	}
	edges, other := uniformTree(g.random, half), uniformTree(g.random, second)
	for i := 0; i+1 < max(len(edges), len(other)); i += 2 {
		if i+1 < len(edges) {
			g.add(int(edges[i]), int(edges[i+1]))
		}
		if i+1 < len(other) {
			g.add(half+int(other[i]), half+int(other[i+1]))
		}
	}
	if half < 2 || g.v.Acyclic && !g.v.Directed {
		return
	}
	for tries := 0; g.count() < g.m && tries < 2*g.m; tries++ {
		a, b := g.index(half), g.index(half)
		g.add(a, b)
		g.add(half+a, half+b)
	}
}

// cycles makes cycles of three or more that all go through vertex 0, whose removal takes them apart.
func (g *grapher) cycles() {
	var ends []int
	for from := 1; from < g.n; {
		size := min(g.n-from, 2+g.index(3))
		g.add(0, from)
		for v := from + 1; v < from+size; v++ {
			g.add(v-1, v)
		}
		if from += size; size > 1 {
			ends = append(ends, from-1)
		}
	}
	for _, v := range ends { // when all vertices are joined, so that there are edges for that
		if !(g.v.Acyclic && !g.v.Directed) {
			g.add(v, 0)
		}
	}
}

// components makes several trees of different sizes.
func (g *grapher) components() {
	for from := 0; from < g.n; {
		size := min(g.n-from, 1+g.index(max(1, (g.n+2)/3)))
		edges := uniformTree(g.random, size)
		for i := 0; i+1 < len(edges); i += 2 {
			g.add(from+int(edges[i]), from+int(edges[i+1]))
		}
		from += size
	}
	if g.v.Acyclic && !g.v.Directed {
		return
	}
	// What is left joins vertices that are near each other, so that the parts stay
	// parts where there is room.
	for tries := 0; g.count() < g.m && tries < 2*g.m; tries++ {
		a := g.index(g.n)
		g.add(a, min(g.n-1, a+1+g.index(3)))
	}
}

// gridLike joins the vertices of rows and columns with their neighbours: the rows
// and the first column first, which join all of them.
func (g *grapher) gridLike() {
	columns := max(1, int(root(int64(g.n))))
	for v := 1; v < g.n; v++ {
		if v%columns > 0 {
			g.add(v-1, v)
		} else {
			g.add(v-columns, v)
		}
	}
	for v := columns; v < g.n && !(g.v.Acyclic && !g.v.Directed); v++ {
		g.add(v-columns, v)
	}
}

// rest adds edges until there are enough, each that there may be alike.
func (g *grapher) rest() {
	if g.count() == g.m {
		return
	}
	if g.v.Acyclic && !g.v.Directed {
		g.joinParts()
		return
	}
	if g.seen != nil {
		all := g.possible()
		if all <= 2*uint64(g.m)+16 { // dense: those that there are not yet, in any order
			g.fromAll(all)
			return
		}
	}
	for g.count() < g.m {
		g.add(g.pair(g.below(g.pairs())))
	}
}

// joinParts adds edges between parts that are not joined yet, until there are
// enough or one part is left.
func (g *grapher) joinParts() {
	sets := newForest(int64(g.n))
	for i := 0; i < len(g.edges); i += 2 {
		sets.join(int64(g.edges[i]), int64(g.edges[i+1]))
	}
	edges := uniformTree(g.random, g.n)
	for i := 0; i < len(edges) && g.count() < g.m; i += 2 {
		if a, b := int64(edges[i]), int64(edges[i+1]); sets.join(a, b) {
			g.add(int(a), int(b))
		}
	}
}

// pairs is how many pairs pair knows, of which some may be no edges.
func (g *grapher) pairs() uint64 {
	if g.v.Bipartite {
		pairs := uint64(g.left) * uint64(g.n-g.left)
		if g.v.Directed && !g.v.Acyclic {
			pairs *= 2
		}
		return max(1, pairs)
	}
	return uint64(g.n) * uint64(g.n)
}

// pair returns the vertices of a pair by its number.
func (g *grapher) pair(x uint64) (a, b int) {
	if g.v.Bipartite {
		right := uint64(g.n - g.left)
		back := x >= uint64(g.left)*right
		x %= uint64(g.left) * right
		a, b = int(x/right), g.left+int(x%right)
		if back {
			a, b = b, a
		}
		return a, b
	}
	return int(x / uint64(g.n)), int(x % uint64(g.n))
}

// possible is how many different edges there may be.
func (g *grapher) possible() uint64 {
	if g.v.Bipartite {
		return g.pairs()
	}
	n := uint64(g.n)
	all := n * (n - 1)
	if !g.v.Directed || g.v.Acyclic {
		all /= 2
	}
	if g.v.Loops {
		all += n
	}
	return all
}

// fromAll adds edges out of a list of all that there may be.
func (g *grapher) fromAll(possible uint64) {
	list := make([]uint64, 0, possible)
	for x := range g.pairs() {
		a, b := g.pair(x)
		once := g.v.Bipartite || g.v.Directed && !g.v.Acyclic || a <= b
		if once && (a != b || g.v.Loops) {
			list = append(list, x)
		}
	}
	shuffle(g.random, list)
	for _, x := range list {
		if g.count() == g.m {
			return
		}
		g.add(g.pair(x))
	}
}

// vertexNumbers are the numbers that the vertices 0 to n - 1 of a style get, from 0 on. Vertex 0 keeps the least where the
// style is about it; otherwise they are in an order of no kind, and now and then in their own.
func vertexNumbers(r *random, n int, style string) []int32 {
	numbers := r.permutation(n)
	switch {
	case style == pathInOrder, style == pathAgainst, style != rootInTheMiddle && r.oneIn(8):
		slices.Sort(numbers)
		if style == pathAgainst && n > 1 {
			slices.Reverse(numbers[1:])
		}
	case style == rootInTheMiddle && n > 0:
		at := slices.Index(numbers, 0)
		numbers[0], numbers[at] = numbers[at], numbers[0]
	}
	return numbers
}

// labelled gives vertices their numbers, from the least one on, and brings edges and their ends into an order of no
// kind, unless that is the style. Directed edges keep their direction.
func labelled(r *random, edges []int32, n int, from int64, style string, directed bool) []int64 {
	numbers := vertexNumbers(r, n, style)
	inOrder := style == pathInOrder || style == pathAgainst
	order := r.permutation(len(edges) / 2)
	if inOrder {
		slices.Sort(order)
	}
	ends := make([]int64, len(edges))
	for i, e := range order {
		a, b := from+int64(numbers[edges[2*e]]), from+int64(numbers[edges[2*e+1]])
		if !directed && !inOrder && r.pcg.Uint64()&1 == 1 {
			a, b = b, a
		}
		ends[2*i], ends[2*i+1] = a, b
	}
	return ends
}

package picture

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// A Place is where a vertex lies. One is as far as two vertices must be apart, at the least.
type Place struct{ X, Y float64 }

// Lay lays a graph out: a tree in layers below its first vertex, or on circles around it where that is much less wide, a
// graph without cycles whose edges have a direction in
// layers along them, and any other so that vertices are as far apart as the ways between them are long, after
// which those that are too close are moved apart. Components stand side by side.
func Lay(g *Graph) []Place {
	places := make([]Place, g.N)
	left := 0.0
	for _, part := range components(g) {
		var of []Place
		switch {
		case len(part) == 1:
			of = []Place{{}}
		case isTree(g, part):
			of = layTree(g, part)
		case g.Directed && !hasCycle(g, part):
			of = layLayers(g, part)
		default:
			of = layForces(g, part)
		}
		low, high := bounds(of)
		for i, v := range part {
			places[v] = Place{of[i].X - low.X + left, of[i].Y - low.Y}
		}
		left += high.X - low.X + 1.5
	}
	return places
}

func bounds(list []Place) (low, high Place) {
	low, high = Place{math.Inf(1), math.Inf(1)}, Place{math.Inf(-1), math.Inf(-1)}
	for _, p := range list {
		low, high = Place{min(low.X, p.X), min(low.Y, p.Y)}, Place{max(high.X, p.X), max(high.Y, p.Y)}
	}
	return low, high
}

// Bounds are the corners of what places take.
func Bounds(list []Place) (low, high Place) {
	if len(list) == 0 {
		return Place{}, Place{}
	}
	return bounds(list)
}

// neighbours lists for each vertex those that an edge joins it with, in order, each once.
func neighbours(g *Graph) [][]int {
	all := make([][]int, g.N)
	for _, e := range g.Edges {
		if e.A != e.B {
			all[e.A], all[e.B] = append(all[e.A], e.B), append(all[e.B], e.A)
		}
	}
	for i := range all {
		slices.Sort(all[i])
		all[i] = slices.Compact(all[i])
	}
	return all
}

// components are the vertices that hang together, those of the first vertex first.
func components(g *Graph) (parts [][]int) {
	beside, seen := neighbours(g), make([]bool, g.N)
	for v := range g.N {
		if seen[v] {
			continue
		}
		part := []int{v}
		seen[v] = true
		for i := 0; i < len(part); i++ {
			for _, w := range beside[part[i]] {
				if !seen[w] {
					seen[w] = true
					part = append(part, w)
				}
			}
		}
		parts = append(parts, part)
	}
	return parts
}

// isTree reports that a component has one edge less than vertices, each between two others.
func isTree(g *Graph, part []int) bool {
	inside := map[int]bool{}
	for _, v := range part {
		inside[v] = true
	}
	edges := 0
	for _, e := range g.Edges {
		if inside[e.A] {
			edges++
		}
	}
	return edges == len(part)-1
}

// layTree puts each vertex above the middle of those below it. The part begins with the root.
func layTree(g *Graph, part []int) []Place {
	beside := neighbours(g)
	at := map[int]Place{}
	next := 0.0
	type step struct {
		v, from, depth int
		children       []int
		done           int
	}
	first := root(g, part)
	stack := []step{{v: first, from: -1}}
	for len(stack) > 0 {
		top := &stack[len(stack)-1]
		if top.done == 0 {
			for _, w := range beside[top.v] {
				if w != top.from {
					top.children = append(top.children, w)
				}
			}
		}
		if top.done < len(top.children) {
			child := top.children[top.done]
			top.done++
			stack = append(stack, step{v: child, from: top.v, depth: top.depth + 1})
			continue
		}
		x := next
		if n := len(top.children); n > 0 {
			x = (at[top.children[0]].X + at[top.children[n-1]].X) / 2
		} else {
			next++
		}
		at[top.v] = Place{x, 1.4 * float64(top.depth)}
		stack = stack[:len(stack)-1]
	}
	places := make([]Place, len(part))
	for i, v := range part {
		places[i] = at[v]
	}
	if isBroad(next, places) && isShared(beside[first], first, beside, next) {
		return radial(places, next)
	}
	return places
}

// Trees of more leaves than broad, that are so many times as wide as high, are laid out around their root.
const (
	broad     = 30
	tooFlat   = 3
	mostOfOne = 0.5 // share of the leaves that a child of the root may have
)

func isBroad(leaves float64, places []Place) bool {
	_, high := bounds(places)
	return leaves > broad && leaves > tooFlat*high.Y
}

// isShared reports that no child of the root has so many of the leaves that edges to them would go across.
func isShared(children []int, top int, beside [][]int, leaves float64) bool {
	for _, child := range children {
		below := 0
		type step struct{ v, from int }
		for stack := []step{{child, top}}; len(stack) > 0; {
			one := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			if len(beside[one.v]) == 1 {
				below++
			}
			for _, w := range beside[one.v] {
				if w != one.from {
					stack = append(stack, step{w, one.v})
				}
			}
		}
		if float64(below) > mostOfOne*leaves {
			return false
		}
	}
	return true
}

// radial bends layers into circles around the root, of which the first has room for all leaves.
func radial(layered []Place, leaves float64) []Place {
	inner := 1.1 * leaves / (2 * math.Pi)
	places := make([]Place, len(layered))
	for i, p := range layered {
		if p.Y == 0 {
			continue
		}
		far, angle := inner+p.Y-1.4, 2*math.Pi*p.X/leaves
		places[i] = Place{far * math.Cos(angle), far * math.Sin(angle)}
	}
	return places
}

// root is the vertex that no edge leads to, where edges have a direction, and else the first one.
func root(g *Graph, part []int) int {
	if g.Directed {
		into := map[int]bool{}
		for _, e := range g.Edges {
			into[e.B] = true
		}
		for _, v := range part {
			if !into[v] {
				return v
			}
		}
	}
	return part[0]
}

// depths are the lengths of the longest ways to each vertex of a component; ok is false where there is a cycle.
func depths(g *Graph, part []int) (depth map[int]int, ok bool) {
	into, out := map[int]int{}, map[int][]int{}
	for _, v := range part {
		into[v] = 0
	}
	for _, e := range g.Edges {
		if _, inside := into[e.A]; inside {
			into[e.B]++
			out[e.A] = append(out[e.A], e.B)
		}
	}
	depth = map[int]int{}
	var ready []int
	for _, v := range part {
		if into[v] == 0 {
			ready = append(ready, v)
		}
	}
	done := 0
	for ; done < len(ready); done++ {
		v := ready[done]
		for _, w := range out[v] {
			depth[w] = max(depth[w], depth[v]+1)
			if into[w]--; into[w] == 0 {
				ready = append(ready, w)
			}
		}
	}
	return depth, done == len(part)
}

func hasCycle(g *Graph, part []int) bool {
	_, ok := depths(g, part)
	return !ok
}

// layLayers puts vertices into layers along the edges, each near the middle of those before it.
func layLayers(g *Graph, part []int) []Place {
	depth, _ := depths(g, part)
	layers := map[int][]int{}
	deepest := 0
	for _, v := range part {
		layers[depth[v]] = append(layers[depth[v]], v)
		deepest = max(deepest, depth[v])
	}
	before := map[int][]int{}
	for _, e := range g.Edges {
		before[e.B] = append(before[e.B], e.A)
	}
	x := map[int]float64{}
	for d := 0; d <= deepest; d++ {
		layer := layers[d]
		middle := func(v int) float64 {
			if len(before[v]) == 0 {
				return float64(slices.Index(layer, v))
			}
			sum := 0.0
			for _, w := range before[v] {
				sum += x[w]
			}
			return sum / float64(len(before[v]))
		}
		slices.SortStableFunc(layer, func(a, b int) int { return cmp.Compare(middle(a), middle(b)) })
		for i, v := range layer {
			x[v] = 1.3 * (float64(i) - float64(len(layer)-1)/2)
		}
	}
	places := make([]Place, len(part))
	for i, v := range part {
		shift := 0.0 // an edge past a layer does not run through what stands in it
		if depth[v]%2 == 1 {
			shift = 0.35
		}
		places[i] = Place{x[v] + shift, 1.5 * float64(depth[v])}
	}
	return places
}

// edgeLong is how long an edge is to be.
const edgeLong = 2.3

// layForces puts vertices as far apart as the ways between them are long: stress is made small by stochastic gradient
// descent (J. X. Zheng, S. Pawar, D. F. M. Goodman, "Graph Drawing by Stochastic Gradient Descent", IEEE TVCG 25, 2019).
// It costs the pairs of vertices times the rounds. Forces that push and pull from a random start, as libraries have
// them, left single vertices far away.
func layForces(g *Graph, part []int) []Place {
	const rounds, last = 30, 0.1
	type pair struct {
		i, j int
		d    float64
	}
	var pairs []pair
	furthest := 1.0
	for i, row := range distances(g, part) {
		for j := range i {
			d := float64(row[j])
			furthest = max(furthest, d)
			pairs = append(pairs, pair{i, j, d})
		}
	}
	random := rand.New(rand.NewPCG(1, uint64(len(part))))
	places := make([]Place, len(part))
	for i := range places {
		places[i] = Place{random.Float64(), random.Float64()}
	}
	first := furthest * furthest
	slower := math.Log(first/last) / (rounds - 1)
	for round := range rounds {
		step := first * math.Exp(-slower*float64(round))
		random.Shuffle(len(pairs), func(a, b int) { pairs[a], pairs[b] = pairs[b], pairs[a] })
		for _, p := range pairs {
			a, b := &places[p.i], &places[p.j]
			dx, dy := a.X-b.X, a.Y-b.Y
			length := max(1e-9, math.Hypot(dx, dy))
			by := min(1, step/(p.d*p.d)) * (length - p.d) / 2 / length
			a.X, a.Y = a.X-dx*by, a.Y-dy*by
			b.X, b.Y = b.X+dx*by, b.Y+dy*by
		}
	}
	for i := range places {
		places[i] = Place{places[i].X * edgeLong, places[i].Y * edgeLong}
	}
	apart(places)
	return places
}

// distances are the lengths of the shortest ways between the vertices of a component, in edges.
func distances(g *Graph, part []int) [][]int {
	beside := neighbours(g)
	index := make([]int, g.N)
	for i, v := range part {
		index[v] = i
	}
	all := make([][]int, len(part))
	for i, v := range part {
		all[i] = make([]int, len(part))
		seen := make([]bool, len(part))
		seen[i] = true
		queue := []int{v}
		for k := 0; k < len(queue); k++ {
			for _, w := range beside[queue[k]] {
				if j := index[w]; !seen[j] {
					seen[j] = true
					all[i][j] = all[i][index[queue[k]]] + 1
					queue = append(queue, w)
				}
			}
		}
	}
	return all
}

// leastApart is how far two vertices must be apart.
const leastApart = 1.15

// apart moves vertices that are too close away from each other, until none is.
func apart(places []Place) {
	for range 200 {
		moved := false
		for i := range places {
			for j := i + 1; j < len(places); j++ {
				dx, dy := places[j].X-places[i].X, places[j].Y-places[i].Y
				if dx > leastApart || dx < -leastApart || dy > leastApart || dy < -leastApart {
					continue
				}
				d := math.Hypot(dx, dy)
				if d >= leastApart {
					continue
				}
				if d < 1e-6 { // they lie on each other
					angle := float64(i*31+j) * 2.4
					dx, dy = math.Cos(angle), math.Sin(angle)
					places[i].X -= dx * leastApart / 2
					places[i].Y -= dy * leastApart / 2
					places[j].X += dx * leastApart / 2
					places[j].Y += dy * leastApart / 2
					moved = true
					continue
				}
				push := (leastApart - d) / 2 / d * 1.01
				places[i].X -= dx * push
				places[i].Y -= dy * push
				places[j].X += dx * push
				places[j].Y += dy * push
				moved = true
			}
		}
		if !moved {
			return
		}
	}
}

package shape

import (
	"cmp"
	"fmt"
	"math/big"
	"slices"
	"strings"
)

// Points of a plane are an array of two columns, int[n][2]. Of them it can be said that no three lie on a line, and that
// they are, one after the other, the vertices of a polygon that does not cross itself, or is convex.

// mostPoints bounds the points of which each is looked at beside each other.
const mostPoints = 5000

// points reports that something is said of the points that an array is.
func (v *valueNode) points() bool { return v.Spread || v.polygon() }

func (v *valueNode) polygon() bool { return v.Convex || v.Simple }

// twoColumns reports that the second dimension of an array is 2.
func (v *valueNode) twoColumns() bool {
	if v.Dims[1].Exact == nil {
		return false
	}
	n, ok := constant(v.Dims[1].Exact)
	return ok && n == 2
}

// pointWords are what is said of points, in the order in which it is explained.
func (v *valueNode) pointWords() (words []string) {
	for _, one := range []struct {
		said  bool
		words string
	}{
		{v.Spread, "of which no three lie on a line"}, {v.Convex, "the vertices of a convex polygon"}, {v.Simple, "the vertices of a polygon that does not cross itself"},
		{v.Clockwise, "clockwise"}, {v.Counter, "counterclockwise"},
	} {
		if one.said {
			words = append(words, one.words)
		}
	}
	return words
}

// A point is one of a plane.
type point struct{ x, y int64 }

func pointsOf(flat []int64) []point {
	list := make([]point, len(flat)/2)
	for i := range list {
		list[i] = point{flat[2*i], flat[2*i+1]}
	}
	return list
}

// side is positive where c lies to the left of the line from a to b, negative to the right, and 0 on it.
func side(a, b, c point) int {
	const exact = 1_000_000_000 // up to which products of differences stay within 64 bits
	for _, p := range []point{a, b, c} {
		if max(p.x, p.y) > exact || min(p.x, p.y) < -exact {
			return sideOfLarge(a, b, c)
		}
	}
	switch cross := (b.x-a.x)*(c.y-a.y) - (b.y-a.y)*(c.x-a.x); {
	case cross > 0:
		return 1
	case cross < 0:
		return -1
	}
	return 0
}

func sideOfLarge(a, b, c point) int {
	less := func(x, y int64) *big.Int { return new(big.Int).Sub(big.NewInt(x), big.NewInt(y)) }
	left := new(big.Int).Mul(less(b.x, a.x), less(c.y, a.y))
	return left.Cmp(new(big.Int).Mul(less(b.y, a.y), less(c.x, a.x)))
}

// between reports that c, which lies on the line through a and b, lies from a to b.
func (c point) between(a, b point) bool {
	return min(a.x, b.x) <= c.x && c.x <= max(a.x, b.x) && min(a.y, b.y) <= c.y && c.y <= max(a.y, b.y)
}

// meet reports that two segments have a point in common.
func meet(a, b, c, d point) bool {
	if max(a.x, b.x) < min(c.x, d.x) || max(c.x, d.x) < min(a.x, b.x) || max(a.y, b.y) < min(c.y, d.y) || max(c.y, d.y) < min(a.y, b.y) {
		return false
	}
	s, t, u, w := side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)
	return s*t < 0 && u*w < 0 || s == 0 && c.between(a, b) || t == 0 && d.between(a, b) || u == 0 && a.between(c, d) || w == 0 && b.between(c, d)
}

// tooMany reports more points than are looked at beside each other, where that must be.
func (v *valueNode) tooMany(n int) bool {
	return n > mostPoints && (v.Spread || v.Simple && !v.Convex)
}

// pointsFault says what is wrong with points, and at which; nothing where they are as they must be.
func (v *valueNode) pointsFault(list []point) (at int, words string) {
	n := len(list)
	if v.polygon() && n < 3 {
		return max(0, n-1), fmt.Sprintf("a polygon has three vertices at the least, and here are %d", n)
	}
	if v.tooMany(n) {
		return mostPoints, fmt.Sprintf("these are looked at up to %d points, and here are %d", mostPoints, n)
	}
	if v.Spread {
		if i, j, k := onALine(list); k >= 0 {
			if list[i] == list[j] {
				return j, fmt.Sprintf("points %d and %d are the same, counted from 0", i, j)
			}
			return k, fmt.Sprintf("points %d, %d and %d lie on a line, counted from 0", i, j, k)
		}
	}
	if v.Convex {
		if at := turnsBack(list); at >= 0 {
			return at, fmt.Sprintf("the polygon is not convex at vertex %d, counted from 0", at)
		}
	} else if v.Simple {
		if i, j := crosses(list); j >= 0 {
			return j, fmt.Sprintf("the sides from vertices %d and %d meet, counted from 0", i, j)
		}
	}
	if (v.Clockwise || v.Counter) && v.polygon() {
		if left := turnsLeft(list); left != v.Counter {
			return 0, "the vertices go " + map[bool]string{true: "counterclockwise", false: "clockwise"}[left]
		}
	}
	return -1, ""
}

// onALine finds three points on a line, two of them alike among these; k is -1 where there are none.
func onALine(list []point) (i, j, k int) {
	for k := range list {
		seen := make(map[point]int, k)
		for j := range k {
			d := direction(list[j], list[k])
			if d == (point{}) {
				return j, k, k
			}
			if i, again := seen[d]; again {
				return i, j, k
			}
			seen[d] = j
		}
	}
	return 0, 0, -1
}

// direction is that of the line through two points, whichever comes first; nothing where they are the same.
func direction(a, b point) point {
	x, y := b.x-a.x, b.y-a.y
	g, h := max(x, -x), max(y, -y)
	for h != 0 {
		g, h = h, g%h
	}
	if g == 0 {
		return point{}
	}
	if x < 0 || x == 0 && y < 0 {
		g = -g
	}
	return point{x / g, y / g}
}

// turnsBack finds where the vertices of a polygon do not turn to the same side as before, or go round a second time;
// -1: it is convex.
func turnsBack(list []point) int {
	n, turn, flips := len(list), 0, 0
	upwards := func(i int) bool {
		a, b := list[i%n], list[(i+1)%n]
		return a.x < b.x || a.x == b.x && a.y < b.y
	}
	for i := range n {
		here := side(list[(i+n-1)%n], list[i], list[(i+1)%n])
		if here == 0 || turn != 0 && here != turn {
			return i
		}
		turn = here
		if flips += truthOf(upwards(i) != upwards(i+1)); flips > 2 {
			return i
		}
	}
	return -1
}

// crosses finds two sides of a polygon that meet where they should not; j is -1 where none do.
func crosses(list []point) (i, j int) {
	n := len(list)
	for j := range n {
		c, d := list[j], list[(j+1)%n]
		for i := range j {
			a, b := list[i], list[(i+1)%n]
			switch {
			case b == c && side(a, b, d) == 0 && (d.between(a, b) || a.between(c, d)),
				d == a && side(c, d, b) == 0 && (b.between(c, d) || c.between(a, b)):
				return i, j
			case b != c && d != a && meet(a, b, c, d):
				return i, j
			case (i+1 == j) != (b == c) || (j+1 == i+n) != (d == a): // a vertex comes twice
				return i, j
			}
		}
		if c == d {
			return j, j
		}
	}
	return 0, -1
}

// turnsLeft reports that the vertices of a polygon that does not cross itself go counterclockwise: they turn left at the
// outermost of them.
func turnsLeft(list []point) bool {
	n, least := len(list), 0
	for i, p := range list {
		if p.x < list[least].x || p.x == list[least].x && p.y < list[least].y {
			least = i
		}
	}
	return side(list[(least+n-1)%n], list[least], list[(least+1)%n]) > 0
}

// inspectPoints looks at points that were read; from is the line of the first.
func (c *checker) inspectPoints(field *fieldNode, d *datum, from int) {
	if !field.Value.points() {
		return
	}
	if at, words := field.Value.pointsFault(pointsOf(d.ints)); words != "" {
		c.line, c.nth = from+at, 0
		c.fault(field.Name, "%s: %s", orThis(field.Name), words)
	}
}

// Ways to choose points; each may fail, which is looked at.

// pointTries is how often points are drawn again.
const pointTries = 40

// points fills an array with points.
func (m *maker) points(v *valueNode, n int, low, high int64) ([]int64, *unmet) {
	room := interval{low: low, high: high}
	ways := []func(n int, room interval) []point{m.roundPoints, m.arched}
	switch {
	case v.Convex: // no three vertices of a convex polygon lie on a line
	case v.Simple:
		ways = append(ways, m.starShaped, m.chains)
	default:
		ways = []func(n int, room interval) []point{m.scatteredPoints, m.onParabola}
	}
	if v.tooMany(n) {
		return nil, &unmet{pos: v.Pos, text: fmt.Sprintf("more than %d points", mostPoints), hopeless: true}
	}
	for range pointTries {
		list := ways[m.index(len(ways))](n, m.smallRoom(n, room))
		if len(list) != n {
			continue
		}
		if v.polygon() {
			at := m.index(n)
			list = append(list[at:len(list):len(list)], list[:at]...)
			if v.Clockwise || v.Counter {
				if turnsLeft(list) != v.Counter {
					slices.Reverse(list)
				}
			} else if m.oneIn(2) {
				slices.Reverse(list)
			}
		} else {
			shuffle(m.random, list)
		}
		if _, wrong := v.pointsFault(list); wrong == "" {
			flat := make([]int64, 0, 2*n)
			for _, p := range list {
				flat = append(flat, p.x, p.y)
			}
			return flat, nil
		}
	}
	return nil, &unmet{pos: v.Pos, text: fmt.Sprintf("%d points, %s, within %s", n, strings.Join(v.pointWords(), ", "), v.Range.shown(low, high)), hopeless: n < 3}
}

// smallRoom is a part of the range, mostly, in which small numbers and borders come more often.
func (m *maker) smallRoom(n int, room interval) interval {
	width := uint64(room.high) - uint64(room.low)
	need := uint64(4 * n)
	if m.oneIn(2) || width <= need {
		return room
	}
	width = min(width, need+m.below(1+min(width-need, 10*need)))
	low := room.low
	if m.oneIn(2) {
		low += int64(m.below(uint64(room.high) - uint64(room.low) - width + 1))
	} else if room.low <= 0 && uint64(room.high) >= width {
		low = 0
	}
	return interval{low: low, high: low + int64(width)}
}

func (m *maker) pointIn(room interval) point {
	return point{m.between(room.low, room.high), m.between(room.low, room.high)}
}

// scatteredPoints are drawn one by one, each where it makes no line with two others.
func (m *maker) scatteredPoints(n int, room interval) (list []point) {
	if n > 400 {
		return m.onParabola(n, room)
	}
	for tries := 0; len(list) < n && tries < 20*n+100; tries++ {
		p := m.pointIn(room)
		seen := map[point]bool{}
		if !slices.ContainsFunc(list, func(q point) bool {
			d := direction(q, p)
			again := d == point{} || seen[d]
			seen[d] = true
			return again
		}) {
			list = append(list, p)
		}
	}
	return list
}

// onParabola takes points of y = x * x, divided by a prime with a rest, of which no three lie on a line (Erdős, 1951).
func (m *maker) onParabola(n int, room interval) (list []point) {
	prime := int64(max(n, 2))
	for ; !big.NewInt(prime).ProbablyPrime(0); prime++ {
	}
	width := uint64(room.high) - uint64(room.low)
	if width < uint64(prime)-1 {
		return nil
	}
	x, y := room.low+int64(m.below(width-uint64(prime)+2)), room.low+int64(m.below(width-uint64(prime)+2))
	for _, i := range m.permutation(int(prime))[:n] {
		list = append(list, point{x + int64(i), y + int64(i)*int64(i)%prime})
	}
	return list
}

// roundPoints are the vertices of a convex polygon: coordinates are drawn, and the differences between them, as vectors
// in the order of their angles, lead round once (Valtr, 1995).
func (m *maker) roundPoints(n int, room interval) []point {
	differences := func() []int64 {
		list := make([]int64, n)
		for i := range list {
			list[i] = m.between(room.low, room.high)
		}
		slices.Sort(list)
		var steps []int64
		up, down := list[0], list[0]
		for _, x := range list[1 : n-1] {
			if m.oneIn(2) {
				steps, up = append(steps, x-up), x
			} else {
				steps, down = append(steps, down-x), x
			}
		}
		return append(steps, list[n-1]-up, down-list[n-1])
	}
	if n < 3 || room.high > 1<<30 || room.low < -1<<30 {
		return nil
	}
	xs, ys := differences(), differences()
	shuffle(m.random, ys)
	steps := make([]point, n)
	for i := range steps {
		steps[i] = point{xs[i], ys[i]}
	}
	slices.SortFunc(steps, byAngle)
	list := make([]point, n)
	at, least := point{}, point{}
	for i, s := range steps {
		list[i] = at
		least = point{min(least.x, at.x), min(least.y, at.y)}
		at = point{at.x + s.x, at.y + s.y}
	}
	most := point{}
	for i := range list {
		list[i] = point{list[i].x - least.x, list[i].y - least.y}
		most = point{max(most.x, list[i].x), max(most.y, list[i].y)}
	}
	width := room.high - room.low
	x, y := room.low+int64(m.below(uint64(max(0, width-most.x))+1)), room.low+int64(m.below(uint64(max(0, width-most.y))+1))
	for i := range list {
		list[i] = point{list[i].x + x, list[i].y + y}
	}
	return list
}

// byAngle orders vectors by their angle, from that of (-1, 0), which comes last, on.
func byAngle(a, b point) int {
	half := func(p point) int { return truthOf(p.y > 0 || p.y == 0 && p.x < 0) }
	if h := half(a) - half(b); h != 0 {
		return h
	}
	return -side(point{}, a, b)
}

// arched are the vertices of a convex polygon of which all but one side lie along a parabola.
func (m *maker) arched(n int, room interval) (list []point) {
	width := uint64(room.high) - uint64(room.low)
	if n < 3 || n > 1<<30 || uint64(n-1)*uint64(n-1) > width {
		return nil
	}
	x, y := room.low+int64(m.below(width-uint64(n)+2)), room.low+int64(m.below(width-uint64(n-1)*uint64(n-1)+1))
	turned := m.oneIn(2)
	for i := range int64(n) {
		p := point{x + i, y + i*i}
		if turned {
			p = point{p.y, p.x}
		}
		list = append(list, p)
	}
	return list
}

func (m *maker) drawnPoints(n int, room interval) []point {
	list := make([]point, n)
	for i := range list {
		list[i] = m.pointIn(room)
	}
	return list
}

// starShaped are points in the order of their angles around one of them, which sees all of the polygon.
func (m *maker) starShaped(n int, room interval) []point {
	list := m.drawnPoints(n, room)
	middle := m.pointIn(room)
	slices.SortFunc(list, func(a, b point) int {
		return byAngle(point{a.x - middle.x, a.y - middle.y}, point{b.x - middle.x, b.y - middle.y})
	})
	return list
}

// chains are points of which some lead from the leftmost to the rightmost above the line between them, and the others
// back below it.
func (m *maker) chains(n int, room interval) []point {
	list := m.drawnPoints(n, room)
	if n < 3 {
		return nil
	}
	slices.SortFunc(list, func(a, b point) int {
		return cmp.Or(cmp.Compare(a.x, b.x), cmp.Compare(a.y, b.y))
	})
	first, last := list[0], list[n-1]
	above, below := []point{first}, []point{}
	for _, p := range list[1 : n-1] {
		if s := side(first, last, p); s > 0 {
			above = append(above, p)
		} else {
			below = append(below, p)
		}
	}
	above = append(above, last)
	slices.Reverse(below)
	return append(above, below...)
}

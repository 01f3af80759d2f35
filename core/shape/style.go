package shape

import (
	"math/bits"
	"slices"
)

// A style is a way to draw values of one kind, since faults lie in relations between
// values and not only in their sizes. A new one is one entry in its table.
type style[F any] struct {
	name string
	// edge says that it is among those from which edge cases are generated.
	edge bool
	do   F
}

// named returns the style of a name in a table, or the last one, which draws
// without a plan.
func styleNamed[F any](table []style[F], name string) F {
	for _, s := range table {
		if s.name == name {
			return s.do
		}
	}
	return table[len(table)-1].do
}

func styleNames[F any](table []style[F], edge bool) (names []string) {
	for _, s := range table {
		if s.edge || !edge {
			names = append(names, s.name)
		}
	}
	return names
}

// The names of all styles of a table, in its order.
var (
	numberNames = styleNames(numberStyles, false)
	arrayNames  = styleNames(arrayStyles, false)
	casesNames  = styleNames(casesStyles, false)
)

// An interval is where integers are drawn from.
type interval struct {
	low, high int64
	ties      []int64 // values in it that stand next to something else in the input
}

// near bounds a value by the interval.
func (v interval) near(x int64) int64 { return min(max(x, v.low), v.high) }

// within returns the part of the interval from low to high; the whole if that is
// empty.
func (v interval) within(low, high int64) interval {
	if low = max(low, v.low); low <= min(high, v.high) {
		return interval{low, min(high, v.high), nil}
	}
	return v
}

// numberStyles fill numbers that do not heed each other.
var numberStyles = []style[func(r *random, a []int64, v interval)]{
	{"least", true, func(_ *random, a []int64, v interval) { fill(a, func() int64 { return v.low }) }},
	{"largest", true, func(_ *random, a []int64, v interval) { fill(a, func() int64 { return v.high }) }},
	{"zero", true, func(_ *random, a []int64, v interval) { fill(a, func() int64 { return v.near(0) }) }},
	{"small", true, func(r *random, a []int64, v interval) {
		few := int64(min(3+r.below(6), uint64(v.high)-uint64(v.low)))
		fill(a, func() int64 { return r.between(v.low, v.low+few) })
	}},
	{"high", false, func(r *random, a []int64, v interval) {
		fill(a, func() int64 { return r.between(v.high-int64(min(3, uint64(v.high)-uint64(v.low))), v.high) })
	}},
	{"ends", false, func(r *random, a []int64, v interval) {
		fill(a, func() int64 { return [2]int64{v.low, v.high}[r.below(2)] })
	}},
	{"near-zero", true, func(r *random, a []int64, v interval) {
		v = v.within(-2, 2)
		fill(a, func() int64 { return r.between(v.low, v.high) })
	}},
	{"powers", true, func(r *random, a []int64, v interval) { fill(a, func() int64 { return r.power(v) }) }},
	{"ties", true, func(r *random, a []int64, v interval) {
		if len(v.ties) == 0 {
			uniform(r, a, v)
			return
		}
		fill(a, func() int64 { return v.ties[r.index(len(v.ties))] })
	}},
	{"uniform", false, uniform},
}

func fill(a []int64, draw func() int64) {
	for i := range a {
		a[i] = draw()
	}
}

func uniform(r *random, a []int64, v interval) {
	count := uint64(v.high) - uint64(v.low) + 1
	if count == 0 {
		fill(a, func() int64 { return int64(r.pcg.Uint64()) })
		return
	}
	for i := range a {
		a[i] = v.low + int64(r.below(count))
	}
}

// power draws a power of two, or its neighbour, with either sign.
func (r *random) power(v interval) int64 {
	most := bits.Len64(uint64(max(v.high, -(v.low + 1))))
	for range 20 {
		x := int64(1)<<min(62, r.index(most+1)) + int64(r.below(3)) - 1
		if r.oneIn(2) {
			x = -x
		}
		if v.low <= x && x <= v.high {
			return x
		}
	}
	return r.between(v.low, v.high)
}

// An arrayStyle fills an array. Its elements may have to be distinct; then it brings
// different ones into its order.
type arrayStyle struct {
	fill    func(r *random, a []int64, v interval)
	arrange func(r *random, a []int64) // nil: an order of no kind
}

// numbersOf are arrays whose elements do not heed each other.
func numbersOf(name string) arrayStyle { return arrayStyle{fill: styleNamed(numberStyles, name)} }

// arranged are uniform elements in an order.
func arranged(order func(r *random, a []int64)) arrayStyle {
	return arrayStyle{fill: func(r *random, a []int64, v interval) {
		uniform(r, a, v)
		order(r, a)
	}, arrange: order}
}

var arrayStyles = []style[arrayStyle]{
	{"all-least", true, numbersOf("least")},
	{"all-largest", true, numbersOf("largest")},
	{"all-zero", true, numbersOf("zero")},
	{"all-equal", true, arrayStyle{fill: func(r *random, a []int64, v interval) {
		x := r.between(v.low, v.high)
		fill(a, func() int64 { return x })
	}}},
	{"few-distinct", true, arrayStyle{fill: func(r *random, a []int64, v interval) {
		few := make([]int64, 2+r.index(2))
		styleNamed(numberStyles, []string{"uniform", "small", "high", "ends"}[r.index(4)])(r, few, v)
		fill(a, func() int64 { return few[r.index(len(few))] })
	}}},
	{"sorted", true, arranged(func(_ *random, a []int64) { slices.Sort(a) })},
	{"reversed", true, arranged(func(_ *random, a []int64) {
		slices.Sort(a)
		slices.Reverse(a)
	})},
	{"nearly-sorted", true, arranged(func(r *random, a []int64) {
		slices.Sort(a)
		for range min(len(a)/2, 1+r.index(3)) {
			i := r.index(len(a))
			j := min(len(a)-1, i+1+r.index(3))
			a[i], a[j] = a[j], a[i]
		}
	})},
	{"mountain", false, arranged(func(_ *random, a []int64) {
		slices.Sort(a)
		up := slices.Clone(a)
		for i, x := range up { // those at even places rise, the others fall behind them
			if i%2 == 0 {
				a[i/2] = x
			} else {
				a[len(a)-1-i/2] = x
			}
		}
	})},
	{"zigzag", true, arranged(func(_ *random, a []int64) {
		slices.Sort(a)
		up := slices.Clone(a)
		for i := range a { // the least, the greatest, the least but one …
			if a[i] = up[i/2]; i%2 == 1 {
				a[i] = up[len(up)-1-i/2]
			}
		}
	})},
	{"one-outlier", true, arrayStyle{fill: func(r *random, a []int64, v interval) {
		few := make([]int64, 2)
		styleNamed(numberStyles, []string{"ends", "small", "high", "uniform"}[r.index(4)])(r, few, v)
		if few[0] == few[1] {
			few[1] = v.near(v.low + v.high - few[0])
		}
		fill(a, func() int64 { return few[0] })
		if len(a) > 0 {
			a[[3]int{0, len(a) - 1, r.index(len(a))}[r.index(3)]] = few[1]
		}
	}}},
	{"blocks", true, arrayStyle{fill: func(r *random, a []int64, v interval) {
		longest := max(1, len(a)/3)
		for i := 0; i < len(a); {
			x := r.between(v.low, v.high)
			for end := min(len(a), i+1+r.index(longest)); i < end; i++ {
				a[i] = x
			}
		}
	}}},
	{"sums", true, arrayStyle{fill: sums}},
	{"wraps", true, arrayStyle{fill: wraps}},
	{"collisions", true, arrayStyle{fill: collisions}},
	{"ends", true, numbersOf("ends")},
	{"near-zero", true, numbersOf("near-zero")},
	{"powers", true, numbersOf("powers")},
	{"ties", true, numbersOf("ties")},
	{"small", true, numbersOf("small")},
	{"high", false, numbersOf("high")},
	{"random", true, numbersOf("uniform")},
}

// distinct fills an array with different integers, at the ends of the interval or
// anywhere, in the order of a style. There are enough of them.
func distinct(r *random, a []int64, v interval, s arrayStyle) {
	most := uint64(v.high) - uint64(v.low)
	switch n := uint64(len(a)); {
	case n == 0:
		return
	case r.oneIn(4):
		for i := range a {
			a[i] = v.low + int64(i)
		}
	case r.oneIn(4):
		for i := range a {
			a[i] = v.high - int64(i)
		}
	default:
		if most == 1<<64-1 {
			most--
		}
		for i, x := range r.sample(len(a), most+1) {
			a[i] = v.low + int64(x)
		}
	}
	shuffle(r, a)
	if s.arrange != nil {
		s.arrange(r, a)
	}
}

// wordStyles fill the characters of a word, as indices of k of them.
var wordStyles = []style[func(r *random, a []int32, k int)]{
	{"one-letter", true, func(r *random, a []int32, k int) { letters(r, a, k, 1) }},
	{"alternating", true, func(r *random, a []int32, k int) { letters(r, a, k, 2) }},
	{"palindrome", true, palindrome},
	{"nearly-palindrome", true, func(r *random, a []int32, k int) {
		if palindrome(r, a, k); k > 1 {
			i := r.index(len(a))
			a[i] = (a[i] + 1 + int32(r.index(k-1))) % int32(k)
		}
	}},
	{"periodic", true, func(r *random, a []int32, k int) { letters(r, a, k, 1+r.index(max(1, len(a)/2))) }},
	{"ends", true, func(r *random, a []int32, k int) {
		for i := range a {
			a[i] = [2]int32{0, int32(k - 1)}[r.below(2)]
		}
	}},
	{"runs", true, func(r *random, a []int32, k int) {
		for i := 0; i < len(a); {
			x := int32(r.index(k))
			for end := min(len(a), i+1+r.index(max(1, len(a)/3))); i < end; i++ {
				a[i] = x
			}
		}
	}},
	// A search that compares letter by letter goes through nearly all of it at every place.
	{"odd-end", true, func(r *random, a []int32, k int) {
		letters(r, a, k, 1)
		if k > 1 {
			a[len(a)-1] = (a[0] + 1 + int32(r.index(k-1))) % int32(k)
		}
	}},
	// The word of Fibonacci: it repeats itself everywhere, with no period.
	{"fibonacci", true, func(r *random, a []int32, k int) {
		two := twoOf(r, k)
		a[0] = two[0]
		for have, before := 1, 0; have < len(a); {
			// The next word is this one with the one before it behind it.
			next := have + before
			if before == 0 {
				a[1], next = two[1], 2
			} else {
				copy(a[have:], a[:before])
			}
			before, have = have, next
		}
	}},
	{"few-letters", false, func(r *random, a []int32, k int) { randomLetters(r, a, min(k, 2)) }},
	{"random", true, randomLetters},
}

// palindrome is of few letters now and then.
func palindrome(r *random, a []int32, k int) {
	randomLetters(r, a, min(k, 2+r.index(k)))
	for i := range len(a) / 2 {
		a[len(a)-1-i] = a[i]
	}
}

// randomLetters draws several letters from one random number, each as what a
// multiplication carries over, and draws again the few numbers that would favour
// some (Brackett-Rozinsky and Lemire, 2024).
func randomLetters(r *random, a []int32, k int) {
	at, all := 1, uint64(k)
	for all <= (1<<40)/uint64(k) && at < 16 {
		at, all = at+1, all*uint64(k)
	}
	least := -all % all
	for len(a) > 0 {
		part, low := a[:min(at, len(a))], r.pcg.Uint64()
		for i := range part {
			var high uint64
			high, low = bits.Mul64(low, uint64(k))
			part[i] = int32(high)
		}
		for range at - len(part) {
			_, low = bits.Mul64(low, uint64(k))
		}
		if low >= least {
			a = a[len(part):]
		}
	}
}

// letters repeats a start of some letters, of which neighbours differ where that is
// possible.
func letters(r *random, a []int32, k, period int) {
	period = min(period, len(a))
	randomLetters(r, a[:period], k)
	if period == 2 && k > 1 && a[0] == a[1] {
		a[1] = (a[0] + 1 + int32(r.index(k-1))) % int32(k)
	}
	for i := period; i < len(a); i++ {
		a[i] = a[i-period]
	}
}

// permStyles fill 0 to n - 1.
var permStyles = []style[func(r *random, a []int32)]{
	{"identity", true, func(*random, []int32) {}},
	{"reversed", true, func(_ *random, a []int32) { slices.Reverse(a) }},
	{"rotated", true, func(r *random, a []int32) {
		if len(a) > 1 {
			by := 1 + r.index(len(a)-1)
			copy(a, slices.Concat(a[by:], a[:by]))
		}
	}},
	{"one-swap", true, func(r *random, a []int32) {
		if len(a) > 1 {
			i := r.index(len(a) - 1)
			j := i + 1 + r.index(len(a)-1-i)
			a[i], a[j] = a[j], a[i]
		}
	}},
	{"one-cycle", true, func(r *random, a []int32) { // Sattolo, 1986
		for i := len(a) - 1; i > 0; i-- {
			j := r.index(i)
			a[i], a[j] = a[j], a[i]
		}
	}},
	{"random", true, func(r *random, a []int32) { shuffle(r, a) }},
}

// gridStyles fill rows of cells with indices of k symbols; columns is not 0.
var gridStyles = []style[func(r *random, a []int32, columns, k int)]{
	{"one-symbol", true, func(r *random, a []int32, _, k int) { letters(r, a, k, 1) }},
	{"one-odd-cell", true, func(r *random, a []int32, _, k int) {
		letters(r, a, k, 1)
		if k > 1 && len(a) > 0 {
			a[r.index(len(a))] = (a[0] + 1 + int32(r.index(k-1))) % int32(k)
		}
	}},
	{"checkerboard", true, func(r *random, a []int32, columns, k int) {
		two := twoOf(r, k)
		for i := range a {
			a[i] = two[(i/columns+i%columns)%2]
		}
	}},
	{"stripes", true, func(r *random, a []int32, columns, k int) {
		two, upright := twoOf(r, k), r.oneIn(2)
		for i := range a {
			if a[i] = two[i/columns%2]; upright {
				a[i] = two[i%columns%2]
			}
		}
	}},
	{"spiral", true, spiral},
	{"few", true, func(r *random, a []int32, _, k int) { speckled(r, a, k, 10) }},
	{"half", false, func(r *random, a []int32, _, k int) { speckled(r, a, k, 2) }},
	{"random", true, func(r *random, a []int32, _, k int) { randomLetters(r, a, k) }},
}

// twoOf draws two symbols, different ones if there are two.
func twoOf(r *random, k int) [2]int32 {
	a := r.index(k)
	if k == 1 {
		return [2]int32{}
	}
	return [2]int32{int32(a), int32((a + 1 + r.index(k-1)) % k)}
}

// speckled has another symbol in one cell of some.
func speckled(r *random, a []int32, k int, one uint64) {
	two := twoOf(r, k)
	for i := range a {
		a[i] = two[truth(r.oneIn(one))]
	}
}

// spiral is one corridor from a corner to the middle.
func spiral(r *random, a []int32, columns, k int) {
	two := twoOf(r, k)
	fillWith := func(x int32) {
		for i := range a {
			a[i] = x
		}
	}
	fillWith(two[0])
	rows := len(a) / columns
	y, x, dy, dx := 0, 0, 0, 1
	free := func(y, x int) bool {
		return y >= 0 && y < rows && x >= 0 && x < columns && a[y*columns+x] == two[0]
	}
	inside := func(y, x int) bool { return y >= 0 && y < rows && x >= 0 && x < columns }
	if rows == 0 || two[0] == two[1] {
		return
	}
	for turns := 0; turns < 2; {
		a[y*columns+x] = two[1]
		// A wall is left between the ways: the cell behind the next one is free too.
		if free(y+dy, x+dx) && (!inside(y+2*dy, x+2*dx) || free(y+2*dy, x+2*dx)) {
			y, x, turns = y+dy, x+dx, 0
			continue
		}
		dy, dx = dx, -dy
		turns++
	}
}

package shape

import "slices"

// Faults show where one value is just what others make: a limit that is the sum of two elements, or one more than half
// of another name. The style ties draws from such values.

// The bounds of what is looked at for them.
const (
	mostTies   = 40 // values
	mostNear   = 6  // single integers, those nearest in the shape
	fromArray  = 4  // elements of each array
	mostArrays = 3
	fewAdded   = 64 // elements of an array that are added up for each of many bodies
)

// relate gives an interval what stands in it next to the values of other names, or next to what they make, if that is
// what a style is about.
func (m *maker) relate(v *interval, name string, field *fieldNode, f *frame) {
	if name != "ties" {
		return
	}
	singles, arrays := m.valuesAround(field, f)
	if v.tie(singles, arrays); len(v.ties) == 0 {
		m.lose(field)
	}
	if len(v.ties) > mostTies {
		shuffle(m.random, v.ties)
		v.ties = v.ties[:mostTies]
	}
}

// valuesAround are single integers that a field can be tied to, and some elements of each array, with the sum of all
// behind them.
func (m *maker) valuesAround(field *fieldNode, f *frame) (singles []int64, arrays [][]int64) {
	for at := f; at != nil; at = at.above {
		for i := range at.data {
			d := &at.data[i]
			switch n := len(d.ints); {
			case n == 0 || i == field.slot && at == f:
			case n == 1 && d.count == 1:
				singles = append(singles, d.ints[0])
			case len(arrays) < mostArrays:
				var some []int64
				for range fromArray {
					some = append(some, d.ints[m.index(n)])
				}
				if n <= fewAdded || m.depth == 0 {
					if sum, ok := sumOf(d.ints); ok {
						some = append(some, sum)
					}
				}
				arrays = append(arrays, some)
			}
		}
	}
	return singles[:min(len(singles), mostNear)], arrays
}

// sumOf adds integers up; not ok past 64 bits.
func sumOf(list []int64) (sum int64, ok bool) {
	for _, x := range list {
		if sum, ok = arithmetic("+", sum, x); !ok {
			return 0, false
		}
	}
	return sum, true
}

// tie adds the values that others make, as far as they lie in the interval, each with its neighbours.
func (v *interval) tie(singles []int64, arrays [][]int64) {
	add := func(x int64) {
		for step := int64(-1); step <= 1; step++ {
			if y, ok := arithmetic("+", x, step); ok && v.low <= y && y <= v.high && !slices.Contains(v.ties, y) {
				v.ties = append(v.ties, y)
			}
		}
	}
	both := func(list []int64) {
		for i, x := range list {
			add(x)
			add(x / 2)
			add(x - x/2)
			for _, y := range list[i+1:] {
				for _, op := range []string{"+", "-", "*"} {
					if z, ok := arithmetic(op, x, y); ok {
						add(z)
						add(-max(z, -1<<63+1))
					}
				}
				if y != 0 && x > -1<<63 {
					add(x / y)
				}
			}
		}
	}
	both(singles)
	for _, list := range arrays {
		both(list)
	}
}

package shape

import "slices"

// Faults show where one value is just what others make: a limit that is the sum of two elements, or one more than half
// of another name. The style ties draws from such values.

// The bounds of what is looked at for them.
const (
	mostNear   = 6 // single integers, those nearest in the shape
	fromArray  = 4 // elements of each array
	mostArrays = 3
	fewAdded   = 64 // elements of an array that are added up for each of many bodies
)

// relate gives an interval what stands in it next to the values of other names, or next to what they make, if that is
// what a style is about. It chooses one or two of the things that it finds, so that what is drawn meets.
func (m *maker) relate(v *interval, name string, field *fieldNode, f *frame) {
	if name != "ties" {
		return
	}
	near, made := v.around(m.valuesAround(field, f))
	for range 1 + m.index(2) {
		from := near
		if len(near) == 0 || len(made) > 0 && m.oneIn(2) {
			from = made
		}
		if len(from) > 0 {
			v.ties = append(v.ties, from[m.index(len(from))]...)
		}
	}
	if len(v.ties) == 0 {
		m.lose(field)
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

// around returns the values next to each of the others and their halves, and those next to what two of them make, as
// far as they lie in the interval.
func (v *interval) around(singles []int64, arrays [][]int64) (near, made [][]int64) {
	group := func(list *[][]int64, values ...int64) {
		var ties []int64
		for _, x := range values {
			for step := int64(-1); step <= 1; step++ {
				if y, ok := arithmetic("+", x, step); ok && v.low <= y && y <= v.high && !slices.Contains(ties, y) {
					ties = append(ties, y)
				}
			}
		}
		if len(ties) > 0 {
			*list = append(*list, ties)
		}
	}
	both := func(list []int64) {
		for i, x := range list {
			group(&near, x, x/2, x-x/2)
			if twice, ok := arithmetic("+", x, x); ok {
				group(&made, twice)
			}
			for _, y := range list[i+1:] {
				for _, op := range []string{"+", "-", "*"} {
					if z, ok := arithmetic(op, x, y); ok {
						group(&made, z, -max(z, -1<<63+1))
					}
				}
				if y != 0 && x > -1<<63 {
					group(&made, x/y)
				}
			}
		}
	}
	both(singles)
	for _, list := range arrays {
		both(list)
	}
	return near, made
}

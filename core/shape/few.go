package shape

// Sums that meet, ties and exact halves come about where values are few. So half of the small inputs take all values
// from a few neighbours, whatever bounds the shape gives them.

// mostFew is how far apart the values of such an input are at the most.
const mostFew = 9

// farStyles are those that make no sense among a few neighbours.
var farStyles = []string{plainStyle, "largest", "all-largest", "high", "ends", "powers", "sums", "wraps", "collisions"}

// smallCount is up to which count an input is small.
const smallCount = 20

// fewOf is the part of an interval that such an input takes values from: around 0 where that lies inside, and otherwise
// from the least on. What is single may be a few times as far, as a limit is that others add up to.
func (m *maker) fewOf(v interval, single bool) interval {
	if m.few == 0 {
		return v
	}
	width := m.few
	if single && m.oneIn(2) {
		width *= m.magnitude(2, mostFew)
	}
	low := v.low
	if v.low < 0 && v.high > 0 {
		low = max(v.low, -m.few/2)
	}
	v.low, v.high = low, low+int64(min(uint64(width), uint64(v.high)-uint64(low)))
	return v
}

// fewFor is the part for so many elements of a field, which may all have to differ.
func (m *maker) fewFor(f *fieldNode, n int, v interval) interval {
	part := m.fewOf(v, len(f.Value.Dims) == 0 && !f.ofEdges)
	if f.Value.enough(n, part.low, part.high) != nil {
		return v
	}
	return part
}

// fewUnits is the same for decimals, in units of their last place: whole ones or halves where there are any. What is
// drawn from the part is to be multiplied with step.
func (m *maker) fewUnits(f *fieldNode, n int, v interval, places int) (part interval, step int64) {
	if m.few == 0 || places == 0 {
		return m.fewFor(f, n, v), 1
	}
	step = 1
	for range places {
		step *= 10
	}
	step /= 1 + int64(m.index(2))
	part = interval{low: -(-v.low / step), high: v.high / step}
	if v.low > 0 {
		part.low = (v.low-1)/step + 1
	}
	if part.low > part.high || f.Value.enough(n, part.low, part.high) != nil {
		return v, 1
	}
	return m.fewFor(f, n, part), step
}

// letters is how many symbols of a set such an input writes words with.
func (m *maker) letters(k int) int {
	if m.few == 0 {
		return k
	}
	return min(k, 1+int(m.few)/3)
}

package growth

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
)

// A Law says how something grows with the values of one or more names.
type Law struct {
	Text string // "n log n"
	// Of is its value for the values of all names, in their order; it is defined, positive and
	// finite, or at least bounded by the largest float, for any values from 0 on.
	Of func(sizes []float64) float64

	order  float64 // laws are listed from slow to fast growth
	linear bool    // it grows no faster than reading the input does
}

// A curve is a law in one value.
type curve struct {
	text   string // with %s for the name
	of     func(float64) float64
	order  float64
	linear bool
}

// lg is the logarithm by which laws are meant: it is never less than 1.
func lg(x float64) float64 { return math.Log2(math.Max(x, 2)) }

func factorial(x float64) float64 {
	y, _ := math.Lgamma(x + 1)
	return math.Exp(y)
}

// curves are the laws in one name.
var curves = []curve{
	{"log %s", lg, 0.1, true},
	{"sqrt %s", math.Sqrt, 0.5, true},
	{"%s", func(x float64) float64 { return x }, 1, true},
	{"%s log %s", func(x float64) float64 { return x * lg(x) }, 1.1, false},
	{"%s sqrt %s", func(x float64) float64 { return x * math.Sqrt(x) }, 1.5, false},
	{"%s^2", func(x float64) float64 { return x * x }, 2, false},
	{"%s^2 log %s", func(x float64) float64 { return x * x * lg(x) }, 2.1, false},
	{"%s^3", func(x float64) float64 { return x * x * x }, 3, false},
	{"2^%s", math.Exp2, 100, false},
	{"%s!", factorial, 1000, false},
}

// pairs are the laws in two names, %[1]s and %[2]s; those that are not the same with the names
// changed over are tried in both ways.
var pairs = []struct {
	text       string
	of         func(a, b float64) float64
	order      float64
	linear     bool
	asymmetric bool
}{
	{"%[1]s + %[2]s", func(a, b float64) float64 { return a + b }, 1.01, true, false},
	{"(%[1]s + %[2]s) log %[1]s", func(a, b float64) float64 { return (a + b) * lg(a) }, 1.11, false, true},
	{"%[1]s log %[2]s", func(a, b float64) float64 { return a * lg(b) }, 1.12, false, true},
	{"%[1]s sqrt %[2]s", func(a, b float64) float64 { return a * math.Sqrt(b) }, 1.51, false, true},
	{"%[1]s * %[2]s", func(a, b float64) float64 { return a * b }, 2.01, false, false},
	{"%[1]s * %[2]s log %[2]s", func(a, b float64) float64 { return a * b * lg(b) }, 2.11, false, true},
	{"%[1]s^2 * %[2]s", func(a, b float64) float64 { return a * a * b }, 3.01, false, true},
	{"(%[1]s + %[2]s)^2", func(a, b float64) float64 { return (a + b) * (a + b) }, 2.02, false, false},
	{"%[1]s * 2^%[2]s", func(a, b float64) float64 { return a * math.Exp2(b) }, 101, false, true},
}

// beyondAll is what a law says at the most: so much that nothing can have been measured there.
const beyondAll = math.MaxFloat64 / 1e6

// bounded keeps what a law says finite.
func bounded(x float64) float64 {
	if math.IsNaN(x) {
		return beyondAll
	}
	return math.Min(x, beyondAll)
}

// Laws are those that are tried for some names, the constant first.
func Laws(names []string) []Law {
	list := []Law{{Text: "1", Of: func([]float64) float64 { return 1 }, linear: true}}
	for i, name := range names {
		for _, c := range curves {
			list = append(list, Law{
				Text: strings.ReplaceAll(c.text, "%s", name), order: c.order, linear: c.linear,
				Of: func(sizes []float64) float64 { return bounded(c.of(math.Max(sizes[i], 0))) },
			})
		}
	}
	for i := range names {
		for k := range names {
			for _, p := range pairs {
				if i == k || i > k && !p.asymmetric {
					continue
				}
				list = append(list, Law{
					Text: fmt.Sprintf(p.text, names[i], names[k]), order: p.order, linear: p.linear,
					Of: func(sizes []float64) float64 { return bounded(p.of(math.Max(sizes[i], 0), math.Max(sizes[k], 0))) },
				})
			}
		}
	}
	slices.SortStableFunc(list, func(a, b Law) int { return cmp.Compare(a.order, b.order) })
	return list
}

// A sample is one measured value: seconds, or bytes.
type sample struct {
	sizes []float64
	input float64 // bytes that are read
	value float64
	error float64 // one standard deviation of what is not known of the value
}

// A Fit is a law with what of it was measured: base + reading * input + factor * law.
type Fit struct {
	Law
	Base, Reading, Factor float64
	misfit                float64 // the sum of squared errors, in standard deviations
	free                  int     // how many of the three are not zero
}

// At is what the fit says for some sizes, and the bytes of an input of that size.
func (f Fit) At(sizes []float64, input float64) float64 {
	return f.Base + f.Reading*input + f.Factor*f.Of(sizes)
}

// score is the lower the better a fit is. Each free number costs as much as by Akaike's criterion
// (H. Akaike, A new look at the statistical model identification, 1974).
func (f Fit) score() float64 { return f.misfit + 2*float64(f.free) }

// fitted fits each law to samples by weighted least squares with no negative numbers, and returns
// the fits from the best to the worst. mostBase bounds what an empty input takes.
func fitted(laws []Law, samples []sample, mostBase float64) []Fit {
	var fits []Fit
	for _, law := range laws {
		if f := fitOf(law, samples, mostBase); f.shows(samples) {
			fits = append(fits, f)
		}
	}
	slices.SortStableFunc(fits, func(a, b Fit) int { return cmp.Compare(a.score(), b.score()) })
	return fits
}

// shows reports that more than one sample tells that there is more than base and reading.
func (f Fit) shows(samples []sample) bool {
	if f.order == 0 {
		return true
	}
	n := 0
	for _, s := range samples {
		if f.Of(s.sizes) >= beyondAll {
			return false
		}
		if f.Factor*f.Of(s.sizes) > 1.5*s.error {
			n++
		}
	}
	return n > 1
}

// fitOf tries all subsets of the three numbers, since there are so few.
func fitOf(law Law, samples []sample, mostBase float64) Fit {
	best := Fit{Law: law, misfit: math.Inf(1)}
	columns := func(s sample) [3]float64 { return [3]float64{1, s.input, law.Of(s.sizes)} }
	for subset := range 8 {
		if law.order == 0 && subset&4 != 0 || law.linear && subset&2 != 0 {
			continue // they could not be told apart
		}
		if law.order > 0 && subset&4 == 0 {
			continue // it would be another law
		}
		numbers, ok := leastSquares(samples, columns, subset, mostBase)
		if !ok {
			continue
		}
		f := Fit{Law: law, Base: numbers[0], Reading: numbers[1], Factor: numbers[2]}
		for k := range 3 {
			f.free += subset >> k & 1
		}
		for _, s := range samples {
			e := (s.value - f.At(s.sizes, s.input)) / s.error
			f.misfit += e * e
		}
		if f.score() < best.score() {
			best = f
		}
	}
	return best
}

// leastSquares finds the numbers of a subset of columns that fit samples best. ok is false where
// one of them would have to be negative. A base above its bound is held at it.
func leastSquares(samples []sample, columns func(sample) [3]float64, subset int, mostBase float64) (numbers [3]float64, ok bool) {
	held := 0.0
	for range 2 {
		var m [3][4]float64
		var scale [3]float64
		for _, s := range samples {
			for k, x := range columns(s) {
				scale[k] = math.Max(scale[k], math.Abs(x))
			}
		}
		for _, s := range samples {
			w := 1 / (s.error * s.error)
			x := columns(s)
			for i := range 3 {
				for k := range 3 {
					m[i][k] += w * (x[i] / scale[i]) * (x[k] / scale[k])
				}
				m[i][3] += w * (x[i] / scale[i]) * (s.value - held)
			}
		}
		solved, fine := solve(m, subset)
		if !fine {
			return numbers, false
		}
		for k := range 3 {
			numbers[k] = 0
			if subset>>k&1 == 1 {
				numbers[k] = solved[k] / scale[k]
			}
		}
		numbers[0] += held
		if numbers[0] <= mostBase || subset&1 == 0 {
			break
		}
		held, subset = mostBase, subset&^1
		numbers[0] = held
	}
	return numbers, numbers[0] >= 0 && numbers[1] >= 0 && numbers[2] >= 0
}

// solve solves a system of up to three equations, of those in the subset.
func solve(m [3][4]float64, subset int) (x [3]float64, ok bool) {
	var used []int
	for k := range 3 {
		if subset>>k&1 == 1 {
			used = append(used, k)
		}
	}
	for at, k := range used {
		pivot := at
		for i := at + 1; i < len(used); i++ {
			if math.Abs(m[used[i]][k]) > math.Abs(m[used[pivot]][k]) {
				pivot = i
			}
		}
		m[used[at]], m[used[pivot]] = m[used[pivot]], m[used[at]]
		if m[k][k] == 0 {
			return x, false
		}
		for _, i := range used {
			if i == k {
				continue
			}
			factor := m[i][k] / m[k][k]
			for _, c := range append(slices.Clone(used), 3) {
				m[i][c] -= factor * m[k][c]
			}
		}
	}
	for _, k := range used {
		x[k] = m[k][3] / m[k][k]
		if math.IsNaN(x[k]) || math.IsInf(x[k], 0) {
			return x, false
		}
	}
	return x, true
}

// distinct is how much worse a law must score than another to be told apart from it.
const distinct = 6.0

// plausible returns the fits of a sorted list that cannot be told from the best one.
func plausible(fits []Fit, samples int) []Fit {
	if len(fits) == 0 {
		return nil
	}
	// Where even the best law misses by more than the errors say, these were too small.
	unit := math.Max(1, fits[0].misfit/math.Max(1, float64(samples-fits[0].free)))
	n := 1
	for n < len(fits) && fits[n].misfit/unit+2*float64(fits[n].free) < fits[0].misfit/unit+2*float64(fits[0].free)+distinct {
		n++
	}
	return fits[:n]
}

// bentGain is by how much a law with a knee must score better than the best one without.
const bentGain = 15.0

// A bentFit is a law whose factor changes at some size.
type bentFit struct {
	Fit
	Knee
}

// bentFits returns for each law that grows no faster than a cube its best fit with a knee, which
// costs two more free numbers, from the best to the worst.
func bentFits(laws []Law, samples []sample, mostBase float64) (list []bentFit) {
	for _, law := range laws {
		if law.order == 0 || law.order > 3 {
			continue
		}
		best := bentFit{Fit: Fit{misfit: math.Inf(1)}}
		for k := 3; k+3 <= len(samples); k++ {
			if f, ok := bentAt(law, samples, samples[k].input, mostBase); ok && f.score() < best.score() {
				best = f
				for _, n := range samples[k].sizes {
					best.Sizes = append(best.Sizes, int64(n))
				}
			}
		}
		if !math.IsInf(best.misfit, 1) {
			list = append(list, best)
		}
	}
	slices.SortStableFunc(list, func(a, b bentFit) int { return cmp.Compare(a.score(), b.score()) })
	return list
}

// bentAt fits a law whose factor changes from inputs of so many bytes on.
func bentAt(law Law, samples []sample, cut, mostBase float64) (f bentFit, ok bool) {
	columns := func(s sample) [3]float64 {
		if s.input < cut {
			return [3]float64{1, law.Of(s.sizes), 0}
		}
		return [3]float64{1, 0, law.Of(s.sizes)}
	}
	numbers, ok := leastSquares(samples, columns, 7, mostBase)
	if !ok || numbers[1] <= 0 || numbers[2] < leastKnee*numbers[1] {
		return f, false
	}
	f = bentFit{Fit{Law: law, Base: numbers[0], Factor: numbers[2], free: 5}, Knee{Times: numbers[2] / numbers[1]}}
	for _, s := range samples {
		c := columns(s)
		e := (s.value - numbers[0] - numbers[1]*c[1] - numbers[2]*c[2]) / s.error
		f.misfit += e * e
	}
	return f, true
}

// leastKnee is how many times as much something must cost from a knee on.
const leastKnee = 1.3

// exponent is the slope of the logarithm of values over the logarithm of one size, less a
// constant base, and its standard error; 0, 0 where there is none to be seen.
func exponent(samples []sample, at int, base float64) (slope, uncertain float64) {
	var n, sx, sy, sxx, sxy float64
	type point struct{ x, y, w float64 }
	var points []point
	for _, s := range samples {
		rise := s.value - base
		if rise <= 2*s.error || s.sizes[at] <= 1 {
			continue
		}
		w := (rise / s.error) * (rise / s.error)
		points = append(points, point{math.Log(s.sizes[at]), math.Log(rise), w})
	}
	if len(points) < 3 {
		return 0, 0
	}
	// What counts is how it grows where it is large.
	slices.SortFunc(points, func(a, b point) int { return cmp.Compare(a.x, b.x) })
	points = points[max(0, len(points)-6):]
	for _, p := range points {
		n, sx, sy, sxx, sxy = n+p.w, sx+p.w*p.x, sy+p.w*p.y, sxx+p.w*p.x*p.x, sxy+p.w*p.x*p.y
	}
	spread := sxx - sx*sx/n
	if spread <= 0 {
		return 0, 0
	}
	slope = (sxy - sx*sy/n) / spread
	level := (sy - slope*sx) / n
	var rest float64
	for _, p := range points {
		e := p.y - level - slope*p.x
		rest += p.w * e * e
	}
	return slope, math.Sqrt(math.Max(1, rest/float64(max(1, len(points)-2))) / spread)
}

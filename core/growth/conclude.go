package growth

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"coldverdict/core/verdict"
)

// A quantity is what grows.
type quantity int

const (
	inTime quantity = iota
	inMemory
	inOutput
)

// samplesOf are the points of one style that came to their end, as samples; single axes belong to
// the plain style.
func (m *measuring) samplesOf(q quantity, style string, all bool) (list []sample) {
	for _, p := range m.points {
		if !p.Ended() || p.Style != style && !(p == m.base()) || p.Largest && !all {
			continue
		}
		s := sample{sizes: floats(p.Sizes), input: float64(p.Input)}
		s.value, s.error = m.valueAndError(q, p)
		list = append(list, s)
	}
	slices.SortStableFunc(list, func(a, b sample) int { return cmp.Compare(a.input, b.input) })
	return list
}

func (m *measuring) valueAndError(q quantity, p *Point) (value, uncertain float64) {
	switch q {
	case inMemory:
		value = float64(p.Memory)
		return value, math.Max(memoryNoise, 0.03*value)
	case inOutput:
		value = float64(p.Output)
		return value, math.Max(4, 0.03*value)
	}
	value = p.CPU.Seconds()
	share := onceShare
	if p.Runs > 1 { // the fastest run is the one that was disturbed least
		share = min(share, float64(p.times[1]-p.times[0])/float64(p.times[0]))
	}
	start := m.base().times
	rise := math.Max(0, value-start[0].Seconds())
	return value, math.Max(noise.Seconds(), (start[len(start)/2]-start[0]).Seconds()) + noiseShare*rise + share*value
}

// limit is the problem's limit of a quantity; 0: there is none.
func (m *measuring) limit(q quantity) float64 {
	switch q {
	case inMemory:
		return float64(m.plan.Limits.Memory)
	case inOutput:
		return float64(m.plan.Limits.Output)
	}
	return m.plan.Limits.Time.Seconds()
}

// lawsOf are the laws that are tried for a quantity: memory and output are never factorials of
// what is stored.
func (m *measuring) lawsOf(q quantity) []Law {
	laws := Laws(m.names)
	if q == inTime {
		return laws
	}
	return slices.DeleteFunc(laws, func(l Law) bool { return l.order >= 1000 })
}

// trend says how a quantity grows in one style.
func (m *measuring) trend(q quantity, style string) Trend {
	t := Trend{Style: style, Limit: m.limit(q)}
	if m.base().Ended() {
		m.measured(q, style, &t)
		m.explain(q, style, &t)
	}
	t.Fits = m.fits(t, m.failed(q, style))
	return t
}

// leastSamples is from how many samples on a law can be told.
const leastSamples = 4

// explain says of a trend by which law it is, and what follows from that.
func (m *measuring) explain(q quantity, style string, t *Trend) {
	below := m.samplesOf(q, style, false)
	if len(below) < leastSamples {
		return
	}
	base, _ := m.valueAndError(q, m.base())
	everything := m.samplesOf(q, style, true)
	fits, knees := m.explained(q, everything, base)
	t.Knees, t.Law = knees, fits[0].Text
	for _, f := range fits[1:] {
		t.Near = append(t.Near, f.Text)
	}
	if fits[0].order == 0 {
		for _, law := range m.hidden(q, fits[0], everything, style) {
			if !slices.Contains(t.Near, law.Text) {
				t.Near = append(t.Near, law.Text)
			}
		}
	}
	t.Exponent, t.Sure = exponent(everything, Furthest(everything[len(everything)-1].sizes), fits[0].Base)
	predicting, _ := m.explained(q, below, base)
	p := m.predict(predicting, below, style)
	t.Largest.Low, t.Largest.High = p.Low, p.High
	t.Most = m.most(fits[0], t.Limit)
}

// seenShare is by how much of a constant something must grow up to the largest input to count.
const seenShare = 0.3

// hidden are the plain laws that may lie below the noise where nothing was seen to grow: at the
// largest input they could add a part of the constant that counts. What grows faster than the input
// is none of them, as it is left out of the prediction.
func (m *measuring) hidden(q quantity, constant Fit, samples []sample, style string) (list []Law) {
	sizes, bytes := m.largestOf(style)
	if sizes == nil {
		return nil
	}
	first, last := samples[0], samples[len(samples)-1]
	longer := math.Log(bytes / math.Max(1, first.input))
	for _, law := range m.lawsOf(q) {
		plain := law.order > 0 && law.order <= 3 && !strings.Contains(law.Text, "log") && !strings.Contains(law.Text, "sqrt")
		asInput := math.Log(law.Of(sizes)/law.Of(first.sizes)) <= inputPower*longer
		if plain && asInput && 2*last.error*law.Of(sizes)/law.Of(last.sizes) > seenShare*constant.Base {
			list = append(list, law)
		}
	}
	return list
}

// inputPower is with which power of the bytes of the input something may grow that grows with it.
const inputPower = 1.2

// explained returns the laws that explain samples, the best first, and a knee where only a law with
// one does.
func (m *measuring) explained(q quantity, samples []sample, base float64) (fits []Fit, knees []Knee) {
	laws := m.lawsOf(q)
	fits = plausible(fitted(laws, samples, mostStart*base), len(samples))
	for i, bent := range bentFits(laws, samples, mostStart*base) {
		switch {
		case i == 0 && bent.score() < fits[0].score()-bentGain:
			fits, knees = []Fit{bent.Fit}, []Knee{bent.Knee}
		case bent.order < fits[0].order && bent.score() < fits[0].score()+2*distinct && !slices.ContainsFunc(fits, func(f Fit) bool { return f.Text == bent.Text }):
			fits = append(fits, bent.Fit) // caches can make a law look like the next one
		}
	}
	return fits, knees
}

// mostStart is how many times what the smallest input takes the constant part may be.
const mostStart = 1.3

// Furthest is the index of the largest of some values: of the names that grow, the one that a
// chart is drawn over.
func Furthest[T int64 | float64](values []T) (at int) {
	for i, n := range values {
		if n > values[at] {
			at = i
		}
	}
	return at
}

// measured takes over what the largest input took, if it was run.
func (m *measuring) measured(q quantity, style string, t *Trend) {
	for _, p := range m.points {
		if p.Largest && p.Style == style && p.Ended() {
			t.Largest.Measured, _ = m.valueAndError(q, p)
		}
	}
}

// failed is the smallest point of a style that failed by a quantity; nil: none did.
func (m *measuring) failed(q quantity, style string) *Point {
	for _, p := range m.of(style) {
		if !p.Ended() && failedBy(p) == q {
			return p
		}
	}
	return nil
}

// predict says what the largest input takes by all laws that can be meant: between the least and
// the most of them, and wider the further it is from what was measured.
func (m *measuring) predict(fits []Fit, below []sample, style string) (p Prediction) {
	sizes, bytes := m.largestOf(style)
	if sizes == nil || len(fits) == 0 {
		return p
	}
	last := below[len(below)-1]
	p.Low = math.Inf(1)
	for _, f := range fits {
		value := f.At(sizes, bytes)
		p.Low, p.High = math.Min(p.Low, value), math.Max(p.High, value)
	}
	further := math.Log2(math.Max(1, bytes/math.Max(1, last.input)))
	wider := 1.08 + 0.03*further + last.error/math.Max(last.value, 1e-9)/2
	// Whatever disturbs a measurement makes it larger, so what was measured may be too large.
	p.Low, p.High = math.Max(0, p.Low/(wider+0.1)), p.High*wider
	if fits[0].order == 0 { // what grows with the input may be too little to be seen yet
		p.High += 2 * last.error * bytes / math.Max(1, last.input)
	}
	return p
}

// largestOf are the sizes of the largest input in a style, and how many bytes it has; nil: there is
// none.
func (m *measuring) largestOf(style string) (sizes []float64, bytes float64) {
	k := key{All, style, m.source.reach(All)}
	in, known := m.inputs[k]
	if !known {
		var err error
		if in, err = m.input(context.Background(), k.axis, k.value, k.style); err != nil {
			return nil, 0
		}
	}
	return floats(in.sizes), float64(in.data.Size)
}

func floats(list []int64) (values []float64) {
	for _, n := range list {
		values = append(values, float64(n))
	}
	return values
}

// fits says whether the largest input fits.
func (m *measuring) fits(t Trend, failed *Point) Fits {
	p := t.Largest
	switch {
	case t.Limit == 0:
		return Yes
	case p.Measured > 0 && p.Measured > t.Limit:
		return No
	case p.Measured > 0 && p.Measured > barely*t.Limit:
		return Barely
	case p.Measured > 0:
		return Yes
	case failed != nil:
		return No // a smaller one passed more than its limit
	case p.High == 0:
		return Unknown
	case p.Low > t.Limit:
		return No
	case p.High <= barely*t.Limit:
		return Yes
	case p.High <= t.Limit:
		return Barely
	}
	return Unknown
}

// most are the values of the names that would just fit, all growing together; nil where more would
// fit than can be said.
func (m *measuring) most(f Fit, limit float64) []int64 {
	if limit == 0 || f.order == 0 || len(m.source.largest()) == 0 {
		return nil
	}
	largest := m.source.largest()
	at := func(share float64) (sizes []float64, bytes float64) {
		for _, n := range largest {
			sizes = append(sizes, math.Pow(float64(n), share))
		}
		base := m.base()
		last := m.points[len(m.points)-1]
		for _, p := range m.points {
			if p.Input > last.Input {
				last = p
			}
		}
		perUnit := float64(last.Input-base.Input) / math.Max(1, sum(last.Sizes)-sum(base.Sizes))
		for _, n := range sizes {
			bytes += perUnit * n
		}
		return sizes, bytes
	}
	low, high := 0.0, 3.0
	if f.At(at(high)) <= limit {
		return nil
	}
	for range 60 {
		if middle := (low + high) / 2; f.At(at(middle)) <= limit {
			low = middle
		} else {
			high = middle
		}
	}
	sizes, _ := at(low)
	var values []int64
	for _, n := range sizes {
		values = append(values, int64(n))
	}
	return values
}

func sum(list []int64) (n float64) {
	for _, x := range list {
		n += float64(x)
	}
	return n
}

// conclude says what came of all points.
func (m *measuring) conclude() Growth {
	g := Growth{Plan: m.plan, Elapsed: m.since(m.began), Runs: m.runs}
	g.Time, g.Memory, g.Output = m.worstTrend(inTime), m.worstTrend(inMemory), m.worstTrend(inOutput)
	slices.SortStableFunc(m.points, func(a, b *Point) int {
		return cmp.Or(cmp.Compare(a.Axis, b.Axis), cmp.Compare(a.Style, b.Style), cmp.Compare(a.Input, b.Input))
	})
	for _, p := range m.points {
		g.Points = append(g.Points, *p)
		if !p.Ended() && (g.Stop == nil || p.Input < g.Stop.Input) {
			g.Stop = p
		}
	}
	return g
}

// worstTrend is the trend of the style that takes most at the largest input, with those styles
// whose law is another one.
func (m *measuring) worstTrend(q quantity) (worst Trend) {
	var all []Trend
	for _, style := range m.source.styles() {
		if m.matters(style) {
			all = append(all, m.trend(q, style))
		}
	}
	weight := func(t Trend) float64 {
		if t.Fits == No && t.Largest.Measured == 0 {
			return math.Inf(1)
		}
		return math.Max(t.Largest.Measured, math.Sqrt(t.Largest.Low*t.Largest.High))
	}
	for i, t := range all {
		if i == 0 || weight(t) > weight(worst)*1.05 {
			worst = t
		}
	}
	for _, t := range all {
		if weight(worst) > longer*weight(t) && t.Law != "" && t.Law != worst.Law {
			worst.Others = append(worst.Others, StyleLaw{t.Style, t.Law})
		}
	}
	return worst
}

// failedBy is the quantity whose limit ended a run; any other failure is one of time.
func failedBy(p *Point) quantity {
	switch p.Failed {
	case verdict.MemoryLimit:
		return inMemory
	case verdict.OutputLimit:
		return inOutput
	}
	return inTime
}

package growth

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// What is measured when, and what follows from it, is tried with programs that are only made up: a
// clock that they move is the only one there is.

// A madeUp program takes what its functions say for the values of the names that grow.
type madeUp struct {
	source *shapeSource
	now    time.Time
	random *rand.Rand
	noise  float64
	start  time.Duration
	took   time.Duration                                       // in all
	time   func(sizes []float64, style string) float64         // seconds
	memory func(sizes []float64) float64                       // bytes above the start's
	ends   func(sizes []float64, style string) verdict.Verdict // nil: always well
}

func (f *madeUp) names() []string     { return f.source.names() }
func (f *madeUp) largest() []int64    { return f.source.largest() }
func (f *madeUp) axes() []int         { return f.source.axes() }
func (f *madeUp) reach(a int) float64 { return f.source.reach(a) }
func (f *madeUp) styles() []string    { return f.source.styles() }
func (f *madeUp) close() error        { return nil }
func (f *madeUp) clock() time.Time    { return f.now }

// generate says how large an input is, and makes none.
func (f *madeUp) generate(_ context.Context, axis int, value float64, style string, _ shape.Seed) (input, error) {
	share := math.Log(math.Max(1, value)) / math.Log(f.reach(axis))
	in := input{}
	bytes := 10.0
	for i, span := range f.source.spans {
		n := math.Round(math.Pow(float64(span.High), share))
		if axis != All && axis != i {
			n = float64(max(1, span.Low))
		}
		in.sizes = append(in.sizes, int64(n))
		if span.Counts {
			bytes += 7 * n
		}
	}
	in.data = problem.Data{Size: int64(math.Min(bytes, 1e9)), Text: []byte(style)}
	for _, n := range in.sizes {
		in.data.Text = append(append(in.data.Text, ' '), []byte(time.Duration(n).String())...)
	}
	f.now = f.now.Add(time.Duration(bytes) * 20 * time.Nanosecond)
	remembered[string(in.data.Text)] = in.sizes
	return in, nil
}

// remembered are the sizes of inputs, by what identifies them.
var remembered = map[string][]int64{}

func (f *madeUp) run(_ context.Context, in problem.Data, limits verdict.Limits) (o verdict.Outcome, output int64, err error) {
	var sizes []float64
	for _, n := range remembered[string(in.Text)] {
		sizes = append(sizes, float64(n))
	}
	style := ""
	for _, name := range f.styles() {
		if name != "" && len(in.Text) > len(name) && string(in.Text[:len(name)]) == name {
			style = name
		}
	}
	seconds := f.start.Seconds() + f.time(sizes, style)
	seconds *= 1 + f.noise*f.random.ExpFloat64() // a machine only ever takes longer
	o = verdict.Outcome{Verdict: verdict.Unjudged, Ran: true}
	o.Usage.CPU = time.Duration(math.Min(seconds, 1e6) * float64(time.Second))
	o.Usage.Memory = 4 << 20
	if f.memory != nil {
		o.Usage.Memory += int64(f.memory(sizes))
	}
	if f.ends != nil {
		o.Verdict = f.ends(sizes, style)
	}
	if o.Usage.CPU > limits.Time {
		o.Usage.CPU, o.Verdict = limits.Time, verdict.TimeLimit
	}
	if o.Usage.Memory > limits.Memory {
		o.Usage.Memory, o.Verdict = limits.Memory, verdict.MemoryLimit
	}
	f.now = f.now.Add(o.Usage.CPU + time.Millisecond)
	f.took += o.Usage.CPU + time.Millisecond
	return o, 10, nil
}

// measured measures a program that is made up, on a shape, in ten seconds under a limit of one.
func measured(t *testing.T, text string, f *madeUp) Growth {
	t.Helper()
	s, err := shape.Parse(text)
	require.NoError(t, err)
	source, err := newShapeSource(s, nil)
	require.NoError(t, err)
	f.source, f.now, f.random = source, time.Unix(0, 0), rand.New(rand.NewPCG(1, 2))
	m := &measuring{
		source: f, run: f, names: f.names(), time: 10 * time.Second, tell: func(Progress) {}, now: f.clock,
		plan: judge.Plan{Limits: verdict.Limits{Time: time.Second, Wall: 10 * time.Second, Memory: 256 << 20, Output: 64 << 20}},
	}
	g, err := m.growth(t.Context())
	require.NoError(t, err)
	assert.Less(t, f.took, 11*time.Second, "the time is kept")
	return g
}

const oneCount = "n: int 1..2e5\nw: int[n] 1..9\n"

func TestLawsAreFoundUnderNoise(t *testing.T) {
	lgOf := func(s []float64) float64 { return lg(s[0]) }
	for _, tt := range []struct {
		name, shape string
		time        func(s []float64, style string) float64
		law         string
		fits        Fits
	}{
		{"nothing", oneCount, func([]float64, string) float64 { return 0 }, "1", Yes},
		{"linear, little", oneCount, func(s []float64, _ string) float64 { return 1e-7 * s[0] }, "n", Yes},
		{"linear, much", oneCount, func(s []float64, _ string) float64 { return 8e-6 * s[0] }, "n", No},
		{"with a logarithm", oneCount, func(s []float64, _ string) float64 { return 4e-8 * s[0] * lgOf(s) }, "n log n", Yes},
		{"with a root", oneCount, func(s []float64, _ string) float64 { return 3e-9 * math.Pow(s[0], 1.5) }, "n sqrt n", Yes},
		{"squared, far off", oneCount, func(s []float64, _ string) float64 { return 2e-9 * s[0] * s[0] }, "n^2", No},
		{"squared, within", "n: int 1..5000\nw: int[n] 1..9\n", func(s []float64, _ string) float64 { return 1e-8 * s[0] * s[0] }, "n^2", Yes},
		{"squared beside reading", oneCount, func(s []float64, _ string) float64 { return 1e-6*s[0] + 3e-11*s[0]*s[0] }, "n^2", No},
		{"cubed", "n: int 1..500\nw: int[n] 1..9\n", func(s []float64, _ string) float64 { return 2e-9 * math.Pow(s[0], 3) }, "n^3", Yes},
		{"exponential", "n: int 1..40\nw: int[n] 1..9\n", func(s []float64, _ string) float64 { return 1e-8 * math.Exp2(s[0]) }, "2^n", No},
		{"factorial", "n: int 1..20\nw: int[n] 1..9\n", func(s []float64, _ string) float64 { return 1e-8 * factorial(s[0]) }, "n!", No},
		{"the root of a value", "n: int 1..1e15\n", func(s []float64, _ string) float64 { return 1e-9 * math.Sqrt(s[0]) }, "sqrt n", Yes},
		{"a product", "h: int 1..2000, w: int 1..2000\nrepeat h { x: int[w] 1..9 }\n", func(s []float64, _ string) float64 { return 2e-8 * s[0] * s[1] }, "h * w", Yes},
		{"a sum", "n: int 1..1e5, m: int 1..2e5\na: int[n] 1..9\nb: int[m] 1..9\n", func(s []float64, _ string) float64 { return 1e-6 * (s[0] + s[1]) }, "n + m", Yes},
	} {
		t.Run(tt.name, func(t *testing.T) {
			for _, start := range []time.Duration{500 * time.Microsecond, 60 * time.Millisecond} {
				f := &madeUp{time: tt.time, start: start, noise: 0.04}
				g := measured(t, tt.shape, f)
				assert.Contains(t, append([]string{g.Time.Law}, g.Time.Near...), tt.law, "%+v", g.Time)
				assert.Equal(t, tt.fits, g.Time.Fits, "%+v", g.Time)
				var largest []float64
				for _, span := range f.source.spans {
					largest = append(largest, float64(span.High))
				}
				truth := start.Seconds() + tt.time(largest, "")
				if truth < 100 {
					assert.LessOrEqual(t, g.Time.Largest.Low, truth*1.1, "%+v", g.Time.Largest)
					assert.GreaterOrEqual(t, g.Time.Largest.High, truth*0.9, "%+v", g.Time.Largest)
				}
			}
		})
	}
}

// A runtime that starts slowly, with noise, hides what grows; that is no proof that nothing does.
func TestWhatMayGrowBelowTheNoiseIsNotDenied(t *testing.T) {
	s, err := shape.Parse(oneCount)
	require.NoError(t, err)
	source, err := newShapeSource(s, nil)
	require.NoError(t, err)
	for seed := range uint64(20) {
		for _, most := range []time.Duration{700 * time.Millisecond, 1200 * time.Millisecond, 3 * time.Second} {
			f := &madeUp{source: source, now: time.Unix(0, 0), random: rand.New(rand.NewPCG(seed, 2)), noise: 0.3, start: 80 * time.Millisecond,
				time: func(s []float64, _ string) float64 { return 1e-6 * s[0] }}
			m := &measuring{source: f, run: f, names: f.names(), time: most, tell: func(Progress) {}, now: f.clock,
				plan: judge.Plan{Limits: verdict.Limits{Time: time.Second, Wall: 10 * time.Second, Memory: 256 << 20, Output: 64 << 20}}}
			g, err := m.growth(t.Context())
			require.NoError(t, err)
			if g.Time.Law == "1" {
				assert.Contains(t, g.Time.Near, "n", "seed %d, %v", seed, most)
			}
			assert.NotEqual(t, No, g.Time.Fits)
		}
	}
}

func TestTheWorstStyleDecides(t *testing.T) {
	g := measured(t, oneCount, &madeUp{noise: 0.04, start: time.Millisecond, time: func(s []float64, style string) float64 {
		if style == "sorted" {
			return 1e-9 * s[0] * s[0]
		}
		return 4e-8 * s[0] * lg(s[0])
	}})
	assert.Equal(t, "sorted", g.Time.Style)
	assert.Equal(t, "n^2", g.Time.Law)
	assert.Equal(t, No, g.Time.Fits)
	require.NotEmpty(t, g.Time.Others)
	assert.Equal(t, "", g.Time.Others[0].Style)
	require.Len(t, g.Time.Most, 1)
	assert.InDelta(t, 31_600, g.Time.Most[0], 3000)
}

func TestMemoryHasALawOfItsOwn(t *testing.T) {
	g := measured(t, "n: int 1..5000\nw: int[n] 1..9\n", &madeUp{
		noise: 0.04, time: func(s []float64, _ string) float64 { return 1e-8 * s[0] * s[0] }, memory: func(s []float64) float64 { return 16 * s[0] * s[0] },
	})
	assert.Equal(t, "n^2", g.Memory.Law)
	assert.Equal(t, No, g.Memory.Fits, "%+v", g.Memory)
	assert.Greater(t, g.Memory.Largest.High, 380e6)
}

func TestAProgramThatFailsOnTheWayIsToldWithWhereAndItsLawUpToThere(t *testing.T) {
	g := measured(t, oneCount, &madeUp{
		noise: 0.04, time: func(s []float64, _ string) float64 { return 1e-6 * s[0] },
		ends: func(s []float64, _ string) verdict.Verdict {
			if s[0] > 50_000 {
				return verdict.RuntimeError
			}
			return verdict.Unjudged
		},
	})
	require.NotNil(t, g.Stop)
	assert.Equal(t, verdict.RuntimeError, g.Stop.Failed)
	assert.InDelta(t, 50_000, g.Stop.Sizes[0], 25_000)
	assert.Contains(t, append([]string{g.Time.Law}, g.Time.Near...), "n")
}

func TestWhatFailsOnTheSmallestInputIsToldAtOnce(t *testing.T) {
	for name, f := range map[string]*madeUp{
		"it takes for ever": {time: func([]float64, string) float64 { return 1e5 }},
		"it crashes":        {time: func([]float64, string) float64 { return 0.001 }, ends: func([]float64, string) verdict.Verdict { return verdict.RuntimeError }},
	} {
		t.Run(name, func(t *testing.T) {
			g := measured(t, oneCount, f)
			require.NotNil(t, g.Stop)
			assert.Empty(t, g.Time.Law)
			assert.Equal(t, No, g.Time.Fits)
			assert.Less(t, f.took, 4*time.Second)
		})
	}
}

func TestAPointThatEndedStaysWhatItIsWhenLittleTimeIsLeft(t *testing.T) {
	f := &madeUp{noise: 0.04, time: func(s []float64, _ string) float64 { return 2e-9 * s[0] * s[0] }}
	g := measured(t, oneCount, f)
	for _, p := range g.Points {
		if p.CPU < 990*time.Millisecond {
			assert.True(t, p.Ended(), "%+v", p)
		}
	}
	assert.True(t, g.Stop == nil || g.Stop.CPU >= time.Second, "%+v", g.Stop)
}

func TestAKneeIsToldWhereItIs(t *testing.T) {
	g := measured(t, oneCount, &madeUp{noise: 0.02, time: func(s []float64, _ string) float64 {
		if s[0] > 30_000 {
			return 6e-6 * s[0]
		}
		return 2e-6 * s[0]
	}})
	require.Len(t, g.Time.Knees, 1, "%+v", g.Time)
	assert.InDelta(t, 30_000, g.Time.Knees[0].Sizes[0], 20_000)
}

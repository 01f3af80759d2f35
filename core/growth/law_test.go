package growth

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// exactly are samples of something that follows a law, known within 2 %.
func exactly(of func(float64) float64, sizes ...float64) (samples []sample) {
	for _, n := range sizes {
		samples = append(samples, sample{sizes: []float64{n}, input: 7 * n, value: of(n), error: 0.02*of(n) + 1e-6})
	}
	return samples
}

var decades = []float64{10, 30, 100, 300, 1000, 3000, 10_000, 30_000, 100_000}

func TestEveryLawExplainsItselfBest(t *testing.T) {
	for _, law := range Laws([]string{"n"}) {
		sizes := decades
		if law.order >= 100 {
			sizes = []float64{2, 4, 6, 8, 10, 12, 14, 16, 18, 20}
		}
		most := law.Of([]float64{sizes[len(sizes)-1]})
		samples := exactly(func(n float64) float64 { return 0.002 + law.Of([]float64{n})/most }, sizes...)
		fits := plausible(fitted(Laws([]string{"n"}), samples, 2), len(samples))
		var texts []string
		for _, f := range fits {
			texts = append(texts, f.Text)
		}
		assert.Contains(t, texts, law.Text)
		if law.order >= 0.5 {
			assert.NotContains(t, texts, "1", law.Text)
		}
	}
}

func TestLawsInTwoNamesAreToldApart(t *testing.T) {
	laws := Laws([]string{"n", "m"})
	for text, of := range map[string]func(n, m float64) float64{
		"n * m": func(n, m float64) float64 { return n * m }, "n + m": func(n, m float64) float64 { return n + m },
		"n log m": func(n, m float64) float64 { return n * lg(m) }, "m^2 * n": func(n, m float64) float64 { return m * m * n },
	} {
		var samples []sample
		for _, n := range []float64{1, 100, 1000, 10_000} {
			for _, m := range []float64{1, 100, 1000, 10_000} {
				v := 1e-8 * of(n, m)
				samples = append(samples, sample{sizes: []float64{n, m}, input: 3 * (n + m), value: v, error: 0.02*v + 1e-9})
			}
		}
		fits := fitted(laws, samples, 1e-9)
		require.NotEmpty(t, fits)
		assert.Equal(t, text, fits[0].Text)
	}
}

func TestLawsStayFinite(t *testing.T) {
	for _, law := range Laws([]string{"n", "m"}) {
		for _, n := range []float64{0, 1, 1000, 1e18} {
			v := law.Of([]float64{n, n})
			assert.False(t, math.IsNaN(v) || math.IsInf(v, 0) || v < 0, "%s of %g is %g", law.Text, n, v)
		}
	}
}

func TestNothingNegativeIsFitted(t *testing.T) {
	falling := exactly(func(n float64) float64 { return 1 / n }, decades...)
	for _, f := range fitted(Laws([]string{"n"}), falling, 1) {
		assert.GreaterOrEqual(t, f.Base, 0.0)
		assert.GreaterOrEqual(t, f.Reading, 0.0)
		assert.GreaterOrEqual(t, f.Factor, 0.0)
	}
}

func TestTheExponentIsTheSlopeWhereItIsLarge(t *testing.T) {
	slope, sure := exponent(exactly(func(n float64) float64 { return 0.5 + 1e-6*n*n }, decades...), 0, 0.5)
	assert.InDelta(t, 2, slope, 0.05)
	assert.Less(t, sure, 0.1)
	slope, _ = exponent(exactly(func(float64) float64 { return 0.5 }, decades...), 0, 0.5)
	assert.Zero(t, slope, "nothing grows")
}

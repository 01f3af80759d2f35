package rank

import (
	"bytes"
	"math"
	"math/rand/v2"
	"os"
	"slices"
)

// A Ratio is how many times as long something takes as something else, and the interval in which
// that lies, with the confidence of the constant below.
type Ratio struct {
	Ratio, Low, High float64
	Rounds           int
}

// Shows reports that the difference is more than chance.
func (r Ratio) Shows() bool { return r.Low > 1 || r.High < 1 }

// confidence is with how much an interval holds the true ratio. Where nothing differs, one in a
// hundred comparisons says so all the same.
const confidence = 0.99

// resamples is how many samples are drawn from the rounds for a result, and roughly for a look
// whether more rounds are needed.
const (
	resamples = 1000
	roughly   = 100
)

// ratioOf compares two solutions in pairs of rounds: the median of the ratios, and its interval by
// the bootstrap (B. Efron, Bootstrap methods: another look at the jackknife, 1979): the medians of
// as many ratios again and again, drawn with replacement, lie as far from the median as that lies
// from the truth. It costs the resamples times the rounds.
func ratioOf(a, b []float64, resamples int) Ratio {
	n := min(len(a), len(b))
	logs := make([]float64, 0, n)
	for i := range n {
		if a[i] > 0 && b[i] > 0 {
			logs = append(logs, math.Log(a[i]/b[i]))
		}
	}
	if len(logs) == 0 {
		return Ratio{Ratio: 1, Low: 0, High: math.Inf(1)}
	}
	random := rand.New(rand.NewPCG(7, uint64(len(logs))))
	medians := make([]float64, resamples)
	sample := make([]float64, len(logs))
	for i := range medians {
		for k := range sample {
			sample[k] = logs[random.IntN(len(logs))]
		}
		medians[i] = median(sample)
	}
	slices.Sort(medians)
	tail := (1 - confidence) / 2
	low, high := medians[int(tail*float64(resamples))], medians[int((1-tail)*float64(resamples))]
	// What processor time is counted in, and what lies about caches and pages, is never known better.
	return Ratio{math.Exp(median(logs)), math.Exp(low - grain), math.Exp(high + grain), len(logs)}
}

// grain is a ratio that is taken for none, as a logarithm.
const grain = 0.003

// median returns the middle of some values, and does not change them.
func median(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(values))
	middle := len(sorted) / 2
	if len(sorted)%2 == 1 {
		return sorted[middle]
	}
	return (sorted[middle-1] + sorted[middle]) / 2
}

// sourceSize returns the bytes and the lines of a source.
func sourceSize(path string) (size int64, lines int) {
	text, err := os.ReadFile(path)
	if err != nil {
		return 0, 0
	}
	lines = bytes.Count(text, []byte("\n"))
	if len(text) > 0 && text[len(text)-1] != '\n' {
		lines++
	}
	return int64(len(text)), lines
}

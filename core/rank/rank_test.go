package rank

import (
	"context"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// compared lets made-up solutions take turns on a machine whose speed wanders.
func compared(t *testing.T, seed uint64, takes ...time.Duration) (*Result, time.Duration) {
	t.Helper()
	random := rand.New(rand.NewPCG(seed, 1))
	clock, mood := time.Unix(0, 0), 1.0
	var ranked []int
	result := &Result{}
	for i := range takes {
		ranked = append(ranked, i)
		result.Places = append(result.Places, Place{Solution: i})
	}
	rounds, err := turns(context.Background(), ranked, 10*time.Second, func(i int) (round, error) {
		mood = max(0.7, min(2, mood+0.05*random.NormFloat64()))
		took := time.Duration(float64(takes[i]) * mood * (1 + 0.03*random.ExpFloat64()))
		clock = clock.Add(took)
		return round{time: took, slowest: took / 2, memory: 1 << 20}, nil
	}, func() time.Time { return clock })
	require.NoError(t, err)
	result.settle(ranked, rounds)
	return result, clock.Sub(time.Unix(0, 0))
}

func TestACopyDoesNotDifferAndAFewPercentAreFound(t *testing.T) {
	different, found := 0, 0
	for seed := range uint64(100) {
		same, _ := compared(t, seed, 50*time.Millisecond, 50*time.Millisecond)
		if same.Places[1].Ratio.Shows() {
			different++
		}
		slower, _ := compared(t, seed, 105*time.Millisecond, 100*time.Millisecond)
		if r := slower.Places[1]; r.Solution == 0 && r.Ratio.Shows() && r.Ratio.Low < 1.05 && r.Ratio.High > 1.05 {
			found++
		}
	}
	assert.LessOrEqual(t, different, 5, "of 100 comparisons with a copy")
	assert.GreaterOrEqual(t, found, 85, "of 100 comparisons with what is a twentieth slower")
}

func TestTheFastestIsFirstAndTheTimeIsKept(t *testing.T) {
	r, took := compared(t, 3, 180*time.Millisecond, 100*time.Millisecond, 500*time.Millisecond)
	var order []int
	for _, p := range r.Places {
		order = append(order, p.Solution)
	}
	assert.Equal(t, []int{1, 0, 2}, order)
	assert.InDelta(t, 1.8, r.Places[1].Ratio.Ratio, 0.1)
	assert.InDelta(t, 5, r.Places[2].Ratio.Ratio, 0.3)
	assert.Less(t, took, 12*time.Second)
	assert.GreaterOrEqual(t, r.Rounds, leastRounds)
}

func TestFewRoundsAreMadeHoweverLongTheyTake(t *testing.T) {
	r, _ := compared(t, 3, 20*time.Second, 30*time.Second)
	assert.Equal(t, leastRounds, r.Rounds)
	assert.True(t, r.Places[1].Ratio.Shows())
}

func TestTheSizeOfASourceIsCounted(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a.py")
	for text, lines := range map[string]int{"": 0, "x": 1, "x\n": 1, "x\ny": 2} {
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
		size, got := sourceSize(path)
		assert.EqualValues(t, len(text), size)
		assert.Equal(t, lines, got)
	}
}

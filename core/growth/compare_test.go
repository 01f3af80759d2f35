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

// rivals compares programs that are made up on one count.
func rivals(t *testing.T, times ...func(n float64) float64) *Comparison {
	t.Helper()
	s, err := shape.Parse(oneCount)
	require.NoError(t, err)
	source, err := newShapeSource(s, nil)
	require.NoError(t, err)
	shared := &madeUp{source: source, now: time.Unix(0, 0), random: rand.New(rand.NewPCG(4, 2)), noise: 0.03}
	c := &Comparison{Names: source.names()}
	var runners []runner
	for _, takes := range times {
		c.Plans = append(c.Plans, judge.Plan{Limits: verdict.Limits{Time: time.Second, Memory: 1 << 30}})
		runners = append(runners, rival{shared, takes})
	}
	require.NoError(t, c.steps(context.Background(), shared, runners, Options{Time: 20 * time.Second}, func(Progress) {}, shared.clock))
	c.Crossings = c.crossings()
	return c
}

// A rival is one of several programs on one clock.
type rival struct {
	*madeUp
	takes func(n float64) float64
}

func (r rival) run(ctx context.Context, in problem.Data, limits verdict.Limits) (verdict.Outcome, int64, error) {
	r.time = func(sizes []float64, _ string) float64 { return r.takes(sizes[0]) }
	return r.madeUp.run(ctx, in, limits)
}

func TestWhereTwoChangePlacesIsTold(t *testing.T) {
	quick := func(n float64) float64 { return 0.001 + 1e-7*n*math.Log2(n+1) }
	late := func(n float64) float64 { return 0.06 + 1e-8*n }
	c := rivals(t, quick, late)
	require.Len(t, c.Crossings, 1)
	one := c.Crossings[0]
	assert.Equal(t, []int{0, 1}, []int{one.First, one.Other}, "the first is faster on small inputs")
	assert.Less(t, one.Below[0], int64(45_000))
	assert.Greater(t, one.From[0], int64(20_000))
	assert.Greater(t, one.From[0], one.Below[0])

	assert.Empty(t, rivals(t, quick, quick).Crossings, "a copy is nowhere faster")
	assert.Empty(t, rivals(t, quick, func(n float64) float64 { return 2 * quick(n) }).Crossings)
}

func TestWhoPassesTheLimitTakesPartNoLonger(t *testing.T) {
	c := rivals(t, func(n float64) float64 { return 1e-6 * n }, func(n float64) float64 { return 1e-4 * n })
	last := c.Steps[len(c.Steps)-1]
	assert.EqualValues(t, 200_000, last.Sizes[0])
	assert.Positive(t, last.CPU[0])
	assert.Zero(t, last.CPU[1])
}

package history

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAContestCountsTimesAndPenalties(t *testing.T) {
	h, ctx := opened(t), context.Background()
	contest := Clock{Began: monday, Length: 2 * time.Hour, Penalty: 20 * time.Minute, Problems: []Timed{{Problem: teams}, {Problem: depots}}}
	require.NoError(t, h.StartClock(ctx, contest, false))
	c, err := h.Wrong(ctx, depots)
	require.NoError(t, err)
	require.NotNil(t, c)
	now := monday.Add(30 * time.Minute)
	assert.Equal(t, 30*time.Minute, c.Taken(c.Problems[1], now), "a penalty counts once the problem is solved")

	c, err = h.StopClock(ctx, depots, monday.Add(45*time.Minute))
	require.NoError(t, err)
	assert.True(t, c.Ended.IsZero(), "another problem is open")
	assert.Equal(t, 65*time.Minute, c.Taken(c.Problems[1], now))
	c, err = h.StopClock(ctx, depots, monday.Add(time.Hour))
	require.NoError(t, err)
	assert.Equal(t, 65*time.Minute, c.Taken(c.Problems[1], now), "the first time counts")
	left, ok := c.Left(monday.Add(30 * time.Minute))
	assert.True(t, ok)
	assert.Equal(t, 90*time.Minute, left)

	c, err = h.StopClock(ctx, teams, monday.Add(70*time.Minute))
	require.NoError(t, err)
	assert.False(t, c.Ended.IsZero(), "the last problem ends the contest")
	c, err = h.Running(ctx, teams)
	require.NoError(t, err)
	assert.Nil(t, c)
	c, err = h.Wrong(ctx, teams)
	require.NoError(t, err)
	assert.Nil(t, c)
}

func TestAProblemHasOneClockAtATime(t *testing.T) {
	h, ctx := opened(t), context.Background()
	isNew, err := h.Opened(ctx, teams, monday)
	require.NoError(t, err)
	assert.True(t, isNew)
	isNew, err = h.Opened(ctx, teams, monday.Add(time.Hour))
	require.NoError(t, err)
	assert.False(t, isNew)
	one := Clock{Began: monday, Problems: []Timed{{Problem: teams}}}
	require.NoError(t, h.StartClock(ctx, one, true))
	var unknown *UnknownError
	require.ErrorAs(t, h.StartClock(ctx, one, false), &unknown)
	later := one
	later.Began = monday.Add(time.Hour)
	require.NoError(t, h.StartClock(ctx, later, true), "gently it stays as it is")
	c, err := h.Running(ctx, Problem{})
	require.NoError(t, err)
	assert.WithinDuration(t, monday, c.Began, 0)
	_, ok := c.Left(monday)
	assert.False(t, ok)
	c, err = h.StopClock(ctx, Problem{}, monday.Add(5*time.Minute))
	require.NoError(t, err)
	assert.Equal(t, 5*time.Minute, c.Taken(c.Problems[0], monday.Add(time.Hour)), "what was not solved took until the end")
	_, err = h.Forget(ctx, teams)
	require.NoError(t, err)
	var left int
	require.NoError(t, h.db.QueryRow("SELECT count(*) FROM clock").Scan(&left))
	assert.Zero(t, left)
}

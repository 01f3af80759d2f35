package judge

import (
	"strings"
	"testing"
	"time"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// grouped is a try whose cases are in the given groups, one each.
func grouped(t *testing.T, rules []problem.GroupRule, cases ...[2]string) *try {
	var pairs []string
	for _, c := range cases {
		pairs = append(pairs, c[1], "1")
	}
	r := newTry(t, pairs...)
	for i, c := range cases {
		r.problem.Cases[i].Group = c[0]
	}
	r.problem.Rules = rules
	return r
}

func (r *try) score(t *testing.T) (verdicts []string, messages []string, score *verdict.Score) {
	require.NoError(t, r.run(t.Context()))
	for _, e := range r.events {
		switch e := e.(type) {
		case Case:
			verdicts = append(verdicts, e.Outcome.Verdict.Short())
			messages = append(messages, e.Outcome.Message)
		case Ended:
			score = e.Score
			verdicts = append(verdicts, e.Verdict.Short())
		}
	}
	return verdicts, messages, score
}

func TestGroupsGivePointsInThreeWays(t *testing.T) {
	right, wrong := "say 1", "say 2"
	rule := func(name, score string, points float64, needs ...string) problem.GroupRule {
		return problem.GroupRule{Name: name, Points: points, Score: score, Needs: needs}
	}
	for _, tt := range []struct {
		name     string
		rules    []problem.GroupRule
		cases    [][2]string
		verdicts string
		points   []float64
	}{
		{"all, and all pass", []problem.GroupRule{rule("a", "whole", 30)}, [][2]string{{"a", right}, {"a", right}}, "AC AC AC", []float64{30}},
		{"all, and one fails", []problem.GroupRule{rule("a", "whole", 30)}, [][2]string{{"a", right}, {"a", wrong}}, "AC WA WA", []float64{0}},
		{"shared", []problem.GroupRule{rule("a", "shared", 30)}, [][2]string{{"a", right}, {"a", wrong}, {"a", right}}, "AC WA AC WA", []float64{20}},
		{"least", []problem.GroupRule{rule("a", "least", 30)}, [][2]string{{"a", right}, {"a", wrong}}, "AC WA WA", []float64{0}},
		{"what a group needs passed", []problem.GroupRule{rule("a", "whole", 10), rule("b", "whole", 20, "a")}, [][2]string{{"a", right}, {"b", right}}, "AC AC AC", []float64{10, 20}},
		{"what a group needs failed", []problem.GroupRule{rule("a", "shared", 10), rule("b", "whole", 20, "a")}, [][2]string{{"a", right}, {"a", wrong}, {"b", right}}, "AC WA SK WA", []float64{5, 0}},
		{"needs in a row", []problem.GroupRule{rule("b", "whole", 1, "a"), rule("c", "whole", 2, "b")}, [][2]string{{"a", wrong}, {"b", right}, {"c", right}}, "WA SK SK WA", []float64{0, 0}},
		{"what is needed comes later", []problem.GroupRule{rule("a", "whole", 1, "b"), rule("b", "whole", 2)}, [][2]string{{"a", right}, {"b", wrong}}, "WA SK WA", []float64{0, 0}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			for _, jobs := range []int{1, 3} {
				r := grouped(t, tt.rules, tt.cases...)
				r.options.Jobs = jobs
				verdicts, _, score := r.score(t)
				assert.Equal(t, tt.verdicts, strings.Join(verdicts, " "))
				require.NotNil(t, score)
				assert.True(t, score.Known)
				sum := 0.0
				for i, points := range tt.points {
					assert.InDelta(t, points, score.Groups[i].Points, 1e-9)
					sum += points
				}
				assert.InDelta(t, sum, score.Points, 1e-9)
			}
		})
	}
}

func TestPointsThatAreNotKnownAreNotGuessed(t *testing.T) {
	rules := []problem.GroupRule{{Name: "a", Points: 10, Score: "whole"}, {Name: "b", Points: 20, Score: "whole", Needs: []string{"a"}}}
	r := grouped(t, rules, [2]string{"a", "say 2"}, [2]string{"b", "say 1"}, [2]string{"b", "say 1"})
	r.options.Cases = []int{1}
	verdicts, _, score := r.score(t)
	assert.Equal(t, []string{"AC", "AC"}, verdicts, "what is not run is not asked for")
	assert.False(t, score.Known)
	assert.Equal(t, []verdict.GroupScore{{Name: "a", Possible: 10}, {Name: "b", Possible: 20}}, score.Groups)

	r = grouped(t, rules, [2]string{"a", "say 1"}, [2]string{"b", "say 1"})
	r.problem.Cases[1].Accepted = nil
	_, _, score = r.score(t)
	assert.Equal(t, 10.0, score.Points)
	assert.False(t, score.Known, "nobody knows the answer")

	r = grouped(t, nil, [2]string{"a", "say 1"})
	_, _, score = r.score(t)
	assert.Nil(t, score, "nothing is worth anything")
}

func TestAFailureEndsTheWaitForWhatAGroupNeeds(t *testing.T) {
	rules := []problem.GroupRule{{Name: "b", Needs: []string{"a"}}}
	r := grouped(t, rules, [2]string{"c", "say 2"}, [2]string{"a", "sleep 0.3 say 1"}, [2]string{"a", "say 1"}, [2]string{"b", "say 1"})
	r.options.Jobs, r.options.UntilFailure = 3, true
	done := make(chan error, 1)
	go func() { done <- r.run(t.Context()) }()
	select {
	case err := <-done:
		require.NoError(t, err)
	case <-time.After(30 * time.Second):
		t.Fatal("it waits for ever")
	}
}

func TestAGroupCanHaveLimitsOfItsOwn(t *testing.T) {
	rules := []problem.GroupRule{{Name: "fast", Limits: verdict.Limits{Time: 100 * time.Millisecond}}, {Name: "slow", Limits: verdict.Limits{Time: 5 * time.Second}}}
	work := "burn 0.25 say 1"
	r := grouped(t, rules, [2]string{"fast", work}, [2]string{"usual", work}, [2]string{"slow", "burn 0.6 say 1"})
	verdicts, _, _ := r.score(t)
	assert.Equal(t, []string{"TLE", "AC", "AC", "TLE"}, verdicts)
	for _, e := range r.events {
		if b, ok := e.(Began); ok {
			assert.Equal(t, 5*time.Second, b.Plan.LimitsOf("slow").Time)
			assert.Equal(t, limits.General.Time, b.Plan.LimitsOf("usual").Time)
		}
	}
}

package term

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

func grownPlan(file string) judge.Plan {
	return judge.Plan{Solution: problem.Solution{File: file}, Build: &toolchain.Build{Language: &toolchain.Language{Title: "C"}}}
}

// aGrowth is quadratic on sorted inputs and passes a limit of a second there.
func aGrowth() *growth.Result {
	g := growth.Growth{Plan: grownPlan("hills.c"), Runs: 12, Elapsed: 3 * time.Second}
	for _, style := range []string{"", "sorted"} {
		for n := int64(10); n <= 10_000; n *= 10 {
			took := time.Duration(n) * time.Microsecond
			if style != "" {
				took = time.Duration(n*n) * 5 * time.Nanosecond
			}
			g.Points = append(g.Points, growth.Point{Sizes: []int64{n}, Axis: growth.All, Style: style, Input: 5 * n, CPU: took, Memory: 1 << 20, Runs: 2, Failed: verdict.Accepted})
		}
	}
	g.Time = growth.Trend{
		Law: "n^2", Near: []string{"n^2 log n"}, Exponent: 2.01, Sure: 0.02, Style: "sorted", Others: []growth.StyleLaw{{Law: "n"}}, Limit: 1,
		Largest: growth.Prediction{Low: 45, High: 55}, Fits: growth.No, Most: []int64{14_000}, Knees: []growth.Knee{{Sizes: []int64{4096}, Times: 1.6}},
	}
	g.Memory = growth.Trend{Law: "1", Limit: 64 << 20, Largest: growth.Prediction{Low: 1 << 20, High: 1 << 21}, Fits: growth.Yes}
	g.Output.Fits = growth.Yes
	return &growth.Result{Names: []string{"n"}, Largest: []int64{100_000}, Growths: []growth.Growth{g}}
}

func TestAGrowthIsSaidInWordsAndDrawn(t *testing.T) {
	s, out := plainScreen("80")
	v := &GrowView{Screen: s, Chosen: "edited last"}
	v.Close(aGrowth())
	for _, words := range []string{
		"hills.c grows with n up to 100,000 (edited last)",
		"limit 1 s │",
		"● sorted inputs   + random inputs   ○ predicted",
		"n^2, or n^2 log n; exponent 2.01 ± 0.02, on sorted inputs",
		"n on random inputs",
		"from n = 4,096 on it takes 1.6 times as much as the law says",
		"the largest input (n = 100,000): predicted 45 s to 55 s of 1 s: does",
		"the same for all sizes",
		"hills.c: the largest input does not fit, in time",
	} {
		assert.Contains(t, out.String(), words)
	}
	assert.NotContains(t, out.String(), "output")
	for _, line := range splitLines(out.Bytes()) {
		assert.LessOrEqual(t, width(line), 80, line)
	}
}

func TestWhatFailsOnTheSmallestInputHasNoLaw(t *testing.T) {
	r := aGrowth()
	g := &r.Growths[0]
	g.Points = []growth.Point{{Sizes: []int64{1}, Axis: growth.All, Failed: verdict.RuntimeError, Message: "exit status 3"}}
	g.Stop = &g.Points[0]
	s, out := plainScreen("80")
	(&GrowView{Screen: s}).Close(r)
	assert.Contains(t, out.String(), "failed runtime error at n = 1, random inputs: exit status 3")
	assert.Contains(t, out.String(), "hills.c: runtime error on the smallest input already")
	assert.NotContains(t, out.String(), "exponent")
}

func TestARankingSaysWhetherADifferenceIsReal(t *testing.T) {
	place := func(file string, ratio, low, high float64) rank.Place {
		return rank.Place{Plan: grownPlan(file), Time: time.Duration(ratio * float64(time.Second)), Ratio: rank.Ratio{Ratio: ratio, Low: low, High: high, Rounds: 40}}
	}
	s, out := plainScreen("100")
	(&RankView{Screen: s}).Close(&rank.Result{Cases: []int{0, 1}, Rounds: 40, Places: []rank.Place{
		place("fast.c", 1, 0.997, 1.003), place("copy.c", 1.01, 0.99, 1.03), place("slow.c", 1.8, 1.7, 1.9),
		{Plan: grownPlan("wrong.c"), Failed: &judge.Ended{Verdict: verdict.WrongAnswer}},
	}})
	for _, words := range []string{
		"2 cases, 40 rounds", "fast.c and copy.c: no difference that 40 rounds could show",
		"fast.c is 1.80 times as fast as slow.c (1.70 to 1.90)", "wrong.c: wrong answer; what is not right is not ranked",
	} {
		assert.Contains(t, out.String(), words)
	}
}

func TestWhereSolutionsChangePlacesIsSaid(t *testing.T) {
	c := &growth.Comparison{Names: []string{"n"}, Plans: []judge.Plan{grownPlan("a.c"), grownPlan("b.py")}}
	for n := int64(1); n <= 4096; n *= 4 {
		c.Steps = append(c.Steps, growth.Step{Sizes: []int64{n}, CPU: []time.Duration{time.Duration(n*n) * time.Microsecond, 40 * time.Millisecond}})
	}
	c.Crossings = []growth.Crossing{{First: 0, Other: 1, Below: []int64{64}, From: []int64{256}}}
	s, out := plainScreen("100")
	(&RankView{Screen: s}).CloseBySize(c)
	assert.Contains(t, out.String(), "a.c is faster up to n = 64, b.py from n = 256 on")
	assert.Contains(t, out.String(), "● a.c   + b.py")
	c.Crossings = nil
	s, out = plainScreen("100")
	(&RankView{Screen: s}).CloseBySize(c)
	assert.Contains(t, out.String(), "none of them change places; at the largest input b.py takes least, 40 ms")
}

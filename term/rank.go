package term

import (
	"fmt"
	"strings"
	"time"

	"coldverdict/core/growth"
	"coldverdict/core/history"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/verdict"
)

// A RankView shows what cold rank does and finds. Tell it every event.
type RankView struct {
	Screen  *Screen
	Problem *problem.Problem
	turns   int
}

// Tell takes one event.
func (v *RankView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Building:
		v.Screen.Progress("building …")
	case judge.Running:
		v.Screen.Progress("judging, %d of %d cases", e.Finished, e.Total)
	case growth.Progress:
		v.Screen.growing(e)
	case rank.Progress:
		v.turns++
		v.Screen.Progress("turn %d: %s", v.turns, Visible(e.File))
	}
}

// Close shows the result.
func (v *RankView) Close(r *rank.Result) {
	s := v.Screen
	wide := 10
	for _, p := range r.Places {
		wide = max(wide, width(solutionName(p.Plan.Solution))+2)
	}
	wide = min(wide, s.Width/3)
	s.Print("%s, %s", Count(len(r.Cases), "case"), Count(r.Rounds, "round"))
	s.Print("")
	s.Print("  %s", dim.Render(pad("", wide)+padLeft("time", 10)+padLeft("slowest", 10)+padLeft("memory", 10)+padLeft("source", 10)+padLeft("lines", 7)+"  ratio"))
	for _, p := range r.Places {
		name := fit(solutionName(p.Plan.Solution), wide-2)
		if p.Failed != nil {
			s.Print("  %s%s", pad(name, wide), verdictStyle(p.Failed.Verdict).Render(padLeft("not ranked: "+p.Failed.Verdict.String(), 10)))
			continue
		}
		s.Print("  %s%s%s%s%s%s  %s", pad(name, wide), padLeft(Duration(p.Time), 10), padLeft(Duration(p.Slowest), 10), padLeft(Size(p.Memory), 10),
			padLeft(Size(p.Bytes), 10), padLeft(thousands(int64(p.Lines)), 7), ratioWords(p))
	}
	s.Print("")
	for i, p := range r.Places {
		if words := v.placeWords(r, i, p); words != "" {
			s.Print("%s", s.wrapped(normal, words, ""))
		}
	}
	s.Flush()
}

// Standing compares a place with the person's own tries of the past.
func (s *Screen) Standing(p rank.Place, past history.Standing) {
	s.Print("%s", s.wrapped(normal, fmt.Sprintf("%s: faster than %d of your %s of other sources (slowest case %s; theirs %s to %s, each measured when it was tried)",
		strong.Render(solutionName(p.Plan.Solution)), past.Faster, Count(past.Of, "accepted try"), Duration(p.Slowest), Duration(past.Least), Duration(past.Most)), ""))
}

// ratioWords is a ratio with its interval.
func ratioWords(p rank.Place) string {
	if p.Ratio.Ratio == 1 && p.Ratio.Low >= 0.99 {
		return "1"
	}
	return fmt.Sprintf("%.2f (%.2f to %.2f)", p.Ratio.Ratio, p.Ratio.Low, p.Ratio.High)
}

// placeWords compares a place with the first.
func (v *RankView) placeWords(r *rank.Result, i int, p rank.Place) string {
	name := strong.Render(solutionName(p.Plan.Solution))
	switch {
	case p.Failed != nil:
		words := name + ": " + verdictStyle(p.Failed.Verdict).Render(p.Failed.Verdict.String())
		if p.Failed.Message != "" {
			words += ", " + Visible(p.Failed.Message)
		}
		return words + "; what is not right is not ranked"
	case i == 0:
		return ""
	}
	first := strong.Render(solutionName(r.Places[0].Plan.Solution))
	if !p.Ratio.Shows() {
		return fmt.Sprintf("%s and %s: no difference that %s could show", first, name, Count(p.Ratio.Rounds, "round"))
	}
	return fmt.Sprintf("%s is %s times as fast as %s (%.2f to %.2f)", first, verdictStyle(verdict.Accepted).Render(fmt.Sprintf("%.2f", p.Ratio.Ratio)), name, p.Ratio.Low, p.Ratio.High)
}

// CloseBySize shows what solutions took on inputs that grow, and where they change places.
func (v *RankView) CloseBySize(c *growth.Comparison) {
	s := v.Screen
	furthest := 0
	if n := len(c.Steps); n > 0 {
		furthest = growth.Furthest(c.Steps[n-1].Sizes)
	}
	drawn := chart{width: min(s.Width-16, 100), height: 14, xName: c.Names[furthest], x: shortNumber, y: seconds}
	var legend []string
	for i, plan := range c.Plans {
		line := chartLine{mark: growMarks[i%len(growMarks)], style: normal}
		for _, step := range c.Steps {
			if step.CPU[i] > 0 {
				line.points = append(line.points, chartPoint{float64(step.Sizes[furthest]), step.CPU[i].Seconds()})
			}
		}
		drawn.lines = append(drawn.lines, line)
		legend = append(legend, line.mark+" "+solutionName(plan.Solution))
	}
	for _, row := range drawn.rows() {
		s.Print("  %s", row)
	}
	s.Print("  %s", dim.Render(strings.Join(legend, "   ")))
	s.Print("")
	v.sizeTable(c)
	s.Print("")
	for _, x := range c.Crossings {
		first, other := strong.Render(solutionName(c.Plans[x.First].Solution)), strong.Render(solutionName(c.Plans[x.Other].Solution))
		s.Print("%s", s.wrapped(normal, fmt.Sprintf("%s is faster up to %s, %s from %s on", first, sizesOf(c.Names, x.Below), other, sizesOf(c.Names, x.From)), ""))
	}
	if len(c.Crossings) == 0 {
		s.Print("%s", v.noCrossing(c))
	}
	s.Flush()
}

// noCrossing says who is ahead at the end, where nobody changes places.
func (v *RankView) noCrossing(c *growth.Comparison) string {
	best, least := -1, time.Duration(0)
	if n := len(c.Steps); n > 0 {
		for i, took := range c.Steps[n-1].CPU {
			if took > 0 && (best < 0 || took < least) {
				best, least = i, took
			}
		}
	}
	if best < 0 {
		return "none of them came to its end on a generated input"
	}
	return fmt.Sprintf("none of them change places; at the largest input %s takes least, %s", strong.Render(solutionName(c.Plans[best].Solution)), Duration(least))
}

// sizeTable shows the largest inputs and what each solution took.
func (v *RankView) sizeTable(c *growth.Comparison) {
	s := v.Screen
	wide := make([]int, len(c.Names))
	head := ""
	for i, name := range c.Names {
		wide[i] = max(12, width(name)+2)
		head += padLeft(Visible(name), wide[i])
	}
	column := 10
	for _, plan := range c.Plans {
		column = max(column, min(width(solutionName(plan.Solution))+2, 24))
	}
	for _, plan := range c.Plans {
		head += padLeft(fit(solutionName(plan.Solution), column-2), column)
	}
	s.Print("  %s", dim.Render(head))
	for _, step := range c.Steps[max(0, len(c.Steps)-mostPoints):] {
		row := ""
		for i, n := range step.Sizes {
			row += padLeft(thousands(n), wide[i])
		}
		for _, took := range step.CPU {
			words := "-"
			if took > 0 {
				words = Duration(took)
			}
			row += padLeft(words, column)
		}
		s.Print("  %s", row)
	}
}

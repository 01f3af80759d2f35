package term

import (
	"fmt"

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

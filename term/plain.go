package term

import (
	"cmp"
	"strconv"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A PlainView shows a run as lines "file:line:column: message", at which editors jump.
type PlainView struct {
	Screen  *Screen
	Problem *problem.Problem

	plan   judge.Plan
	counts *tally
}

// Tell takes one event of the judge.
func (v *PlainView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Began:
		v.plan = e.Plan
		v.counts = &tally{counts: map[verdict.Verdict]int{}}
	case judge.Case:
		v.counts.seen++
		v.counts.counts[e.Outcome.Verdict]++
		v.oneCase(&v.Problem.Cases[e.Index], e.Outcome)
	case judge.Ended:
		if b := v.plan.Build; b != nil && b.Failed {
			v.places(b, b.Log, cmp.Or(e.Message, e.Verdict.String()))
		}
		line := solutionName(v.plan.Solution) + ": " + e.Verdict.String()
		if words := v.counts.countWords(len(v.Problem.Cases)); words != "" {
			line += " (" + words + ")"
		} else if e.Message != "" {
			line += ", " + Visible(e.Message)
		}
		v.Screen.Print("%s", line)
	}
}

// oneCase tells a case that did not pass: where the source failed, and where the case stands.
func (v *PlainView) oneCase(c *problem.Case, o verdict.Outcome) {
	if o.Verdict.Passing() || o.Verdict == verdict.Skipped {
		return
	}
	words := c.Name + ": " + o.Said()
	if o.Verdict == verdict.RuntimeError && v.plan.Build != nil && len(o.Stderr.Bytes) > 0 {
		v.places(v.plan.Build, string(o.Stderr.Bytes), words)
	}
	file, line, ok := strings.Cut(c.Where, ":")
	if _, err := strconv.Atoi(line); !ok || err != nil {
		file, line = c.Where, "1"
	}
	v.Screen.Print("%s:%s:1: %s: %s", Visible(file), line, Visible(v.plan.Solution.File), Visible(words))
}

// places shows the places in the source that are named in a text, with what is to be said where nothing stands
// beside them.
func (v *PlainView) places(b *toolchain.Build, text, words string) {
	for _, p := range b.Places(text) {
		v.Screen.Print("%s:%d:%d: %s", Visible(v.plan.Solution.File), p.Line, max(p.Column, 1), Visible(cmp.Or(p.Message, words)))
	}
}

package term

import (
	"fmt"
	"strings"
	"time"

	"charm.land/lipgloss/v2"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/ready"
	"coldverdict/core/verdict"
)

// A ReadyView shows the last look at a solution before it is submitted. Tell it every event, and
// show the result at its end.
type ReadyView struct {
	Screen  *Screen
	Problem *problem.Problem
	Name    string // of the solution
	Chosen  string // how it was chosen, if not by name

	begun bool
	doing string
}

// checkWide is the width of the names of checks.
const checkWide = 15

// stateMarks stand before checks.
var stateMarks = []string{ready.Passed: "ok", ready.Doubtful: "look", ready.Failed: "FAIL", ready.Unknown: "?", ready.Irrelevant: "-"}

// Tell takes one event.
func (v *ReadyView) Tell(event ready.Event) {
	s := v.Screen
	if !v.begun {
		v.begun = true
		line := strong.Render(Visible(v.Name))
		if v.Chosen != "" {
			line += " (" + v.Chosen + ")"
		}
		s.Print("%s", s.wrapped(normal, line, ""))
		s.Print("")
	}
	switch e := event.(type) {
	case ready.Started:
		v.doing = e.Name
		s.Progress("%s …", e.Name)
	case ready.Going:
		s.Progress("%s: %s", v.doing, Visible(e.Words))
	case judge.Building:
		s.Progress("%s: building …", v.doing)
	case ready.Ended:
		v.check(e.Check)
	}
}

// check shows one that has ended.
func (v *ReadyView) check(c ready.Check) {
	s := v.Screen
	style := normal
	switch c.State {
	case ready.Passed:
		style = okay
	case ready.Doubtful, ready.Unknown:
		style = marked
	case ready.Failed:
		style = verdictStyle(verdict.WrongAnswer)
	case ready.Irrelevant:
		style = dim
	}
	words := Visible(c.Message)
	if c.Took >= time.Second {
		words += dim.Render(" in " + Duration(c.Took))
	}
	s.Print("%s", s.hanging(style.Render(pad(stateMarks[c.State], 4))+"  "+pad(c.Name, checkWide), words))
	for _, f := range c.Findings {
		text := Visible(f.Text)
		if f.Line > 0 {
			text = fmt.Sprintf("line %d: %s", f.Line, text)
		}
		s.Print("%s", s.hanging(pad("", 6+checkWide), text))
	}
	s.Flush()
}

// hanging wraps words behind a head, and continues them below their beginning.
func (s *Screen) hanging(head, words string) string {
	wide := width(head)
	lines := wrapWords(words, max(20, s.Width-wide))
	if len(lines) == 0 {
		return strings.TrimRight(head, " ")
	}
	return head + strings.Join(lines, "\n"+strings.Repeat(" ", wide))
}

// Close shows the result.
func (v *ReadyView) Close(r *ready.Result) {
	s := v.Screen
	s.Progress("")
	if r.Log != "" {
		s.Print("")
		s.printText(verdict.Text{Bytes: []byte(r.Log)}, mostLog)
	}
	if r.Found != nil {
		view := &CrossView{Screen: s, Problem: v.Problem, candidates: []judge.Plan{{Solution: problem.Solution{File: v.Name}}}}
		if r.Case != "" {
			s.Print("")
			s.Print("%s", s.wrapped(verdictStyle(r.Found.Outcome.Verdict), Visible(r.Case)+": "+r.Found.Outcome.Verdict.String(), ""))
			(&TryView{Screen: s, Problem: v.Problem}).facts(Visible(v.Name), &r.Found.Cases[0], r.Found.Outcome)
		} else {
			view.found(*r.Found)
		}
	}
	if len(r.Unchecked) > 0 && r.Outcome != ready.NotReady {
		s.Print("")
		s.Print("%s", strong.Render("nobody checked"))
		for _, gap := range r.Unchecked {
			s.Print("%s", s.hanging("  ", Visible(gap.What)+"; "+dim.Render(Visible(gap.Todo))))
		}
	}
	s.Print("")
	style := map[ready.Outcome]lipgloss.Style{ready.Ready: okay, ready.AsFar: marked, ready.NotReady: verdictStyle(verdict.WrongAnswer)}[r.Outcome]
	s.Print("%s %s", strong.Render(Visible(v.Name)+":"), style.Render(r.Outcome.String()))
	s.Flush()
}

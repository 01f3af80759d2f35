package term

import (
	"fmt"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A DemoView shows the solutions of one demo problem, each with what it does
// and with the verdict that it got and must get. Tell it every event of the
// judge.
type DemoView struct {
	Screen  *Screen
	Problem *problem.Problem
	Words   map[string]string // what each solution does, by file

	Tally DemoTally

	plan    judge.Plan
	failure *judge.Case // the first case that did not pass
	skipped []string
	told    map[string]bool // words that were shown
	same    []string        // accepted, and only told by name
	wide    int
}

// A DemoTally counts solutions.
type DemoTally struct{ AsExpected, Other, Skipped int }

// Begin shows the problem's title and words.
func (v *DemoView) Begin(words string) {
	v.told = map[string]bool{}
	for _, s := range v.Problem.Solutions {
		v.wide = max(v.wide, width(solutionName(s)))
	}
	v.Screen.Print("%s", strong.Render(v.Problem.Title))
	v.Screen.Print("%s\n", v.Screen.wrapped(normal, words, ""))
}

// theSame begins the words of a solution that another one explains.
const theSame = "The same"

// sayTheSame names the accepted solutions that do what the one before them does.
func (v *DemoView) sayTheSame() {
	if len(v.same) > 0 {
		words := dim.Render("the same in "+count(len(v.same), "other way")+":") + " " + strings.Join(v.same, ", ")
		v.Screen.columns([]string{"  ", badges[verdict.Accepted]}, words)
		v.same = nil
	}
}

// End names the solutions that were passed over.
func (v *DemoView) End() {
	v.sayTheSame()
	if len(v.skipped) > 0 {
		v.Screen.Print("%s", v.Screen.wrapped(dim, "skipped for want of a compiler: "+strings.Join(v.skipped, ", ")+"; 'cold host' says what to install", "  "))
	}
}

// Tell takes one event.
func (v *DemoView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Building:
		v.Screen.Progress("building %s …", v.Problem.Solutions[e.Solution].File)
	case judge.Began:
		v.plan, v.failure = e.Plan, nil
		v.Screen.Progress("running %s …", e.Plan.Solution.File)
	case judge.Running:
		v.Screen.Progress("running %s: %d of %s", v.plan.Solution.File, e.Finished, count(e.Total, "case"))
	case judge.Case:
		if !e.Outcome.Verdict.Passing() && v.failure == nil {
			v.failure = &e
		}
	case judge.Ended:
		v.end(e)
	}
}

func (v *DemoView) end(e judge.Ended) {
	solution := v.plan.Solution
	if e.Verdict == verdict.Skipped {
		v.Tally.Skipped++
		v.skipped = append(v.skipped, solutionName(solution))
		return
	}
	if said := v.Words[solution.File]; e.Verdict == verdict.Accepted && solution.Met(e.Verdict) && (strings.HasPrefix(said, theSame) || v.told[said]) {
		v.Tally.AsExpected++
		v.same = append(v.same, solutionName(solution))
		return
	}
	v.sayTheSame()
	v.told[v.Words[solution.File]] = true
	indent := strings.Repeat(" ", 2+4+v.wide+2)
	say := func(text string) {
		v.Screen.Print("%s", v.Screen.wrapped(dim, Visible(text), indent))
	}
	words := wrapWords(v.Words[solution.File], v.Screen.Width-len(indent))
	v.Screen.Print("  %s%s  %s", badges[e.Verdict], pad(solutionName(solution), v.wide), words[0])
	for _, more := range words[1:] {
		v.Screen.Print("%s%s", indent, more)
	}
	switch {
	case e.Message != "":
		say(e.Message)
	case v.failure != nil:
		v.sayFailure(say)
	}
	switch {
	case solution.Met(e.Verdict):
		v.Tally.AsExpected++
	default:
		v.Tally.Other++
		v.Screen.Print("%s%s", indent, expectationWords(e.Verdict, solution))
	}
	if v.Screen.instant {
		v.Screen.Flush()
	}
}

// sayFailure says where a solution failed first, and why.
func (v *DemoView) sayFailure(say func(string)) {
	o := v.failure.Outcome
	line := v.Problem.Cases[v.failure.Index].Name
	switch {
	case o.Message != "":
		line += ": " + o.Message
	case o.Verdict == verdict.TimeLimit:
		line += fmt.Sprintf(": still running after %s", Duration(v.plan.Limits.Time))
	case o.Verdict == verdict.MemoryLimit:
		line += fmt.Sprintf(": passed %s", Size(v.plan.Limits.Memory))
	}
	say(line)
	for _, hint := range o.Hints {
		say("hint: " + hint)
	}
}

// DemoEnd shows how the whole tour ended.
func (s *Screen) DemoEnd(t DemoTally) {
	skipped := ""
	if t.Skipped > 0 {
		skipped = fmt.Sprintf(" %s skipped for want of a compiler.", count(t.Skipped, "solution"))
	}
	switch {
	case t.Other > 0:
		s.Print("%s%s", verdictStyle(verdict.Fault).Render(fmt.Sprintf("%d of %s did not get the verdict that it should.", t.Other, count(t.Other+t.AsExpected, "solution"))), skipped)
	case t.AsExpected == 0:
		s.Print("Nothing could be shown:%s", skipped)
	default:
		s.Print("%s%s", verdictStyle(verdict.Accepted).Render(fmt.Sprintf("%s: every verdict came out as it should.", count(t.AsExpected, "solution"))), skipped)
	}
}

package term

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/cross"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// A CrossView shows a search for an input on which a candidate fails. Tell it every
// event of the search, and show the result at its end.
type CrossView struct {
	Screen  *Screen
	Problem *problem.Problem
	Seed    shape.Seed
	For     string // how long it goes on, in words
	Chosen  string // how the candidate was chosen, if not by name
	Slow    bool   // it is a search for slow inputs
	Quiet   bool   // only what was found is shown, and no heading

	candidates []judge.Plan
	reference  *judge.Plan
	hold       box.Hold
}

// Tell takes one event.
func (v *CrossView) Tell(event cross.Event) {
	s := v.Screen
	switch e := event.(type) {
	case judge.Building:
		s.Progress("building …")
	case cross.Began:
		v.candidates, v.reference, v.hold = e.Candidates, e.Reference, e.Hold
		if !v.Quiet {
			v.heading(e)
		}
	case cross.Progress:
		s.Progress("%s", v.progress(e))
	case cross.Found:
		v.found(e)
	}
}

// progress says how far the search is.
func (v *CrossView) progress(e cross.Progress) string {
	words := fmt.Sprintf("%s in %s, up to %s", Count(e.Inputs, "input"), Duration(e.Elapsed), Size(int64(e.Largest)))
	if e.Doing != "" {
		return words + "; " + Visible(e.Doing)
	}
	return words + "; Ctrl-C ends it"
}

// heading says what is compared with what.
func (v *CrossView) heading(e cross.Began) {
	s := v.Screen
	names := make([]string, len(e.Candidates))
	for i, plan := range e.Candidates {
		names[i] = strong.Render(solutionName(plan.Solution))
	}
	line := strings.Join(names, ", ")
	if v.Chosen != "" {
		line += " (" + v.Chosen + ")"
	}
	switch {
	case v.Slow:
		line += " on inputs of full size"
	case e.Base == cross.ByReference:
		line += " against " + strong.Render(solutionName(e.Reference.Solution))
	case e.Base == cross.ByChecker:
		line += " against the checker"
		if v.Problem.Kind().Talks {
			line = strings.Join(names, ", ") + " against the interactor"
		}
	case e.Base == cross.ByEachOther:
		line += " against each other"
	case e.Base == cross.ByNothing:
		line += " without a reference: crashes, limits, and answers that vary"
	}
	s.Print("%s", s.wrapped(normal, line, ""))
	first := e.Candidates[0]
	for _, plan := range e.Candidates {
		s.Print("%s", s.wrapped(dim, solutionName(plan.Solution)+": "+buildWords(plan.Build), "  "))
	}
	if e.Reference != nil {
		s.Print("%s", s.wrapped(dim, solutionName(e.Reference.Solution)+": "+buildWords(e.Reference.Build), "  "))
	}
	s.Print("%s", s.wrapped(dim, limitWords(first.Limits, first.Unset), "  "))
	if !e.Hold.Contained {
		s.Print("%s", s.wrapped(marked, "not contained: programs can use the network and your files", "  "))
	}
	s.Print("%s", s.wrapped(dim, fmt.Sprintf("seed %d, %s", uint64(v.Seed), v.For), "  "))
}

// title says in one line what was found.
func (v *CrossView) title(f cross.Found) string {
	name := solutionName(v.candidates[f.Candidate].Solution)
	o := f.Outcome
	words := o.Verdict.String()
	if remark := remarkWords(o); remark != "" {
		words += ", " + remark
	}
	switch f.Way {
	case cross.Disagrees:
		return fmt.Sprintf("%s give different answers to one input, and no reference says which is right", Count(len(v.candidates), "candidate"))
	case cross.Unsteady:
		return name + ": it does not do the same on every run; " + words
	}
	return name + ": " + words
}

// sizeWords says how an input was found and became small.
func (v *CrossView) sizeWords(f cross.Found) string {
	words := fmt.Sprintf("found after %s and %s", Duration(f.After), Count(f.Inputs, "input"))
	switch {
	case f.Size < f.Before:
		words += fmt.Sprintf("; shrunk from %s to %s in %s, %s", Size(f.Before), Size(f.Size), Duration(f.Shrunk), tries(f.Tries))
	case f.Complete:
		words += fmt.Sprintf("; %s, and none smaller fails", Size(f.Size))
	default:
		words += "; " + Size(f.Size)
	}
	if !f.Complete && f.Tries > 0 {
		words += ", and perhaps not the smallest"
	}
	return words
}

// originWords says how an input was generated, and how to generate it again.
func originWords(f cross.Found) string {
	o := f.Origin
	words := Visible(o.String())
	drawn := o.Edge == "" && o.Number == 0
	if f.Company > 0 && drawn {
		return fmt.Sprintf("among random cases from seed %s on", o.Seed)
	}
	if drawn {
		again := fmt.Sprintf("; again with --count 1 --seed %d --size %s", uint64(o.Seed), o.Size)
		if o.Style != "" {
			again += " --style " + o.Style
		}
		words += again
	}
	return words
}

func tries(n int) string {
	if n == 1 {
		return "1 try"
	}
	return thousands(int64(n)) + " tries"
}

// found shows one failure.
func (v *CrossView) found(f cross.Found) {
	s := v.Screen
	s.Print("\n%s", s.wrapped(verdictStyle(f.Outcome.Verdict), v.title(f), ""))
	s.Print("%s", s.wrapped(dim, v.sizeWords(f), "  "))
	s.Print("%s", s.wrapped(dim, originWords(f), "  "))
	if words := v.companyWords(f); words != "" {
		s.Print("%s", s.wrapped(normal, marked.Render("only after other cases:")+" "+words, "  "))
	}
	if f.Doubt != "" {
		s.Print("%s", s.wrapped(normal, marked.Render("mind:")+" "+Visible(f.Doubt), "  "))
	}
	last := len(f.Cases) - 1
	first := max(0, last-mostBefore)
	if first > 0 {
		s.Print("\n  %s", dim.Render("… "+Count(first, "call")+" before left out …"))
	}
	for i, c := range f.Cases[first:last] {
		s.printData(fmt.Sprintf("call %d, before it", first+i+1), c.Input, shownShort)
	}
	if f.Way == cross.Disagrees {
		s.printData(v.Problem.Kind().Input, f.Cases[last].Input, shownShort)
		v.answers(f)
		return
	}
	view := &TryView{Screen: s, Problem: v.Problem}
	view.facts(solutionName(v.candidates[f.Candidate].Solution), &f.Cases[last], f.Outcome)
	s.inputDrawn(v.Problem, f.Cases[last].Input)
	if v.reference != nil && len(f.Cases[last].Accepted) > 0 && f.Outcome.Difference == nil && f.Outcome.Verdict != verdict.WrongAnswer {
		s.printData(solutionName(v.reference.Solution)+" answers", f.Cases[last].Accepted[0], shownShort)
	}
}

// mostBefore is how many calls before the one that fails are shown.
const mostBefore = 4

// companyWords says that each case alone is right.
func (v *CrossView) companyWords(f cross.Found) string {
	if f.Company < 2 {
		return ""
	}
	return fmt.Sprintf("each of these %d %ss on its own is answered as expected; something is left over from the %[2]s before", f.Company, v.Problem.Kind().Unit)
}

// answers sets out who answered what.
func (v *CrossView) answers(f cross.Found) {
	s := v.Screen
	for _, a := range f.Answers {
		names := make([]string, len(a.Candidates))
		for i, c := range a.Candidates {
			names[i] = solutionName(v.candidates[c].Solution)
		}
		title := strong.Render(List(names, 6))
		if a.Failed != "" {
			s.Print("\n  %s: %s", title, a.Failed)
			continue
		}
		s.Print("\n  %s", title)
		s.printText(a.Text, outputMost)
	}
}

// Close shows what a search came to.
func (v *CrossView) Close(r *cross.Result) {
	s := v.Screen
	s.Print("")
	c := r.Coverage
	rate := ""
	if r.Elapsed > time.Second && r.Inputs > 100 {
		rate = fmt.Sprintf(", %s a second", thousands(int64(float64(r.Inputs)/r.Elapsed.Seconds())))
	}
	if r.Inputs > 0 {
		kinds := fmt.Sprintf("%s and %s", Count(c.EdgeCases, "edge case"), Count(c.Random, "random one"))
		switch {
		case r.Exhausted():
			kinds = "all that are valid"
		case c.All > 0:
			kinds = fmt.Sprintf("of %s that are valid", thousands(int64(c.All)))
		}
		s.Print("%s", s.wrapped(dim, fmt.Sprintf("tried %s in %s%s: %s, of %s to %s%s",
			Count(r.Inputs, "input"), Duration(r.Elapsed), rate, kinds, Size(c.Least), Size(c.Most), stylesWords(c)), ""))
	}
	open := len(r.Found) < len(v.candidates) && r.Inputs > 0 && !slices.ContainsFunc(r.Found, func(f cross.Found) bool { return f.Way == cross.Disagrees })
	if open { // that nothing was found must mean something
		v.reach(r)
	}
	v.health(r)
	for _, n := range r.Notes {
		words := marked.Render("note:") + " " + v.nameOf(n.Candidate) + Visible(n.Text)
		if n.Input != nil {
			words += ", such as " + Visible(shortText(n.Input))
		}
		s.Print("%s", s.wrapped(normal, words, ""))
	}
	for i, peak := range r.Slowest {
		if peak.Time > 0 && open {
			s.Print("%s", s.wrapped(dim, v.peakWords(i, peak), ""))
		}
	}
	s.Print("%s", s.wrapped(normal, v.end(r), ""))
	s.Flush()
}

// nameOf names a candidate where there are several, or the reference.
func (v *CrossView) nameOf(candidate int) string {
	if candidate == cross.TheReference {
		return solutionName(v.reference.Solution) + ": "
	}
	if len(v.candidates) < 2 {
		return ""
	}
	return solutionName(v.candidates[candidate].Solution) + ": "
}

func stylesWords(c cross.Coverage) string {
	named := 0
	for _, t := range c.Styles {
		if t.Style != "" {
			named++
		}
	}
	if named == 0 {
		return ""
	}
	return ", in " + Count(named, "style")
}

// reach says what was reached, and what was not.
func (v *CrossView) reach(r *cross.Result) {
	s, c := v.Screen, r.Coverage
	var parts []string
	for _, n := range c.Counts {
		parts = append(parts, fmt.Sprintf("%s %s to %s", Visible(n.Name), thousands(n.Least), thousands(n.Most)))
	}
	if len(parts) > 0 {
		s.Print("%s", s.wrapped(dim, "with "+strings.Join(parts, ", "), "  "))
	}
	for _, parts := range c.Parts {
		words := fmt.Sprintf("%d of %s of %s ran, in %s that were traced", parts.Ran, Count(parts.Of, "part"), solutionName(v.candidates[parts.Candidate].Solution), Count(parts.Inputs, "input"))
		if len(parts.Missed) > 0 {
			words += "; none of them reached " + parts.MissedWords(8)
		}
		s.Print("%s", s.wrapped(dim, words, "  "))
	}
	if len(c.Never) > 0 {
		all := make([]string, len(c.Never))
		for i, never := range c.Never {
			all[i] = Visible(never)
		}
		s.Print("%s", s.wrapped(normal, marked.Render("never came:")+" "+strings.Join(all, "; "), "  "))
	}
}

// health says how the reference bore up.
func (v *CrossView) health(r *cross.Result) {
	if r.Base != cross.ByReference {
		return
	}
	s, h, name := v.Screen, r.Health, solutionName(v.reference.Solution)
	if h.Slow > 0 {
		words := fmt.Sprintf("%s was too slow for %s, the smallest of %s", name, Count(h.Slow, "input"), Size(h.SlowFrom))
		if h.Answered > 0 {
			words += fmt.Sprintf("; what is larger than %s was held to the limits only", Size(h.Largest))
		}
		s.Print("%s", s.wrapped(dim, words, ""))
	}
	if h.Failed > 0 {
		counts, on := "which count", "first on"
		if h.Failed == 1 {
			counts, on = "which counts", "on"
		}
		words := fmt.Sprintf(" %s itself failed on %s, %s for nothing", name, Count(h.Failed, "input"), counts)
		// Who knows where each candidate fails need not see more of the reference now.
		all := len(r.Found) > 0 && len(r.Found) >= len(v.candidates)
		if all && h.First != nil {
			words += fmt.Sprintf(" (%s, %s %s)", h.First.Outcome.Verdict, on, Size(h.First.Input.Size))
		}
		if s.Print("%s", s.wrapped(normal, marked.Render("mind:")+words, "")); !all {
			v.failure(h.First)
		}
	}
	if h.Wrong != "" {
		s.Print("%s", s.wrapped(marked, fmt.Sprintf("%s cannot serve as a reference: %s", name, h.Wrong), ""))
		if h.WrongOn != nil && h.WrongOn != h.First {
			v.failure(h.WrongOn)
		}
	}
}

// failure shows what a reference did.
func (v *CrossView) failure(f *cross.Failure) {
	if f == nil {
		return
	}
	s := v.Screen
	words := f.Outcome.Verdict.String()
	if remark := remarkWords(f.Outcome); remark != "" {
		words += ", " + remark
	}
	s.Print("%s", s.wrapped(normal, words, "  "))
	view := &TryView{Screen: s, Problem: v.Problem}
	view.facts(solutionName(v.reference.Solution), &problem.Case{Input: f.Input}, f.Outcome)
	s.Print("")
}

// peakWords says how near a candidate came to its limits.
func (v *CrossView) peakWords(i int, p cross.Peak) string {
	l := v.candidates[i].Limits
	words := fmt.Sprintf("%sslowest %s of %s (%.0f %%), %s of %s at most", v.nameOf(i), Duration(p.Time), Duration(l.Time),
		100*float64(p.Time)/float64(l.Time), Size(p.Memory), Size(l.Memory))
	return words + "; " + Visible(p.Origin.String()) + ", " + Size(p.Bytes)
}

// end is the last line.
func (v *CrossView) end(r *cross.Result) string {
	failed := map[int]verdict.Verdict{}
	for _, f := range r.Found {
		failed[f.Candidate] = f.Outcome.Verdict
		if f.Way == cross.Disagrees {
			return marked.Render("the candidates disagree")
		}
	}
	var parts []string
	for i, plan := range v.candidates {
		name := strong.Render(solutionName(plan.Solution)+":") + " "
		if verdict, ok := failed[i]; ok {
			parts = append(parts, name+verdictStyle(verdict).Render(verdict.String()))
			continue
		}
		parts = append(parts, name+map[cross.Weight]string{
			cross.NothingJudged: "nothing was judged",
			cross.OnlyRan:       "nothing found; nobody knows whether its answers are right",
			cross.Agreed:        okay.Render("no difference found"),
			cross.Confirmed:     okay.Render("no failure found") + " in " + Count(r.Judged, "answer"),
		}[r.Weight()])
		if r.Exhausted() && r.Judged == r.Inputs && r.Weight() >= cross.Agreed {
			parts[i] = name + okay.Render("no failure") + " on any valid input: all " + thousands(int64(r.Inputs)) + " were tried"
		}
	}
	return strings.Join(parts, "; ")
}

// okay is how is shown that nothing was found.
var okay = verdictStyle(verdict.Accepted)

// shortText is a text in one line.
func shortText(text []byte) string {
	const most = 40
	line := strings.Join(strings.Fields(string(text[:min(len(text), 4*most)])), " ")
	if len(line) > most || len(text) > 4*most {
		line = line[:min(len(line), most)] + "…"
	}
	return line
}

// Unbuilt shows why a solution cannot be compared with others.
func (s *Screen) Unbuilt(e *judge.UnableError) {
	s.Print("%s %s", strong.Render(solutionName(e.Solution)+":"), verdictStyle(e.End.Verdict).Render(e.End.Verdict.String()))
	if e.End.Message != "" {
		s.Print("%s", s.wrapped(normal, Visible(e.End.Message), "  "))
	}
	if e.Log != "" {
		s.printText(verdict.Text{Bytes: []byte(e.Log)}, mostLog)
	}
	for _, hint := range e.End.Hints {
		s.hint(hint)
	}
}

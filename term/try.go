package term

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A TryView shows a run of solutions as it happens. Tell it every event of
// the judge.
type TryView struct {
	Screen   *Screen
	Problem  *problem.Problem
	Evidence int    // for how many failing cases the evidence is shown
	Chosen   string // how the solution was chosen, if not by name: "edited last"
	// Expectations says that each solution is held against the verdict that it
	// must get.
	Expectations bool

	hold     *box.Hold // how programs are held; nil: none was run yet
	solution *tally
	ended    []ending
}

// An ending is a solution that has its verdict.
type ending struct {
	file   string
	got    verdict.Verdict
	expect string
}

// A tally is what is known so far of the solution that runs now.
type tally struct {
	plan     judge.Plan
	group    string
	nameWide int
	counts   map[verdict.Verdict]int
	seen     int
	failed   []failure // with the smallest inputs, smallest first
	slowest  extreme
	largest  extreme
}

// A failure is a case for which evidence can be shown.
type failure struct {
	index   int
	outcome verdict.Outcome
}

// An extreme is the case that used most of something.
type extreme struct {
	share float64
	name  string
	words string
}

// Tell takes one event.
func (v *TryView) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Building:
		v.Screen.Progress("building …")
	case judge.Held:
		v.hold = &e.Hold
		if lacks := e.Hold.Lacks(); len(lacks) > 0 {
			v.Screen.Remark("note: on this machine %s; 'cold host' says why and what to do", strings.Join(lacks, ", "))
		}
	case judge.Began:
		v.begin(e.Plan)
	case judge.Running:
		v.Screen.Progress("%d of %s%s", e.Finished, count(e.Total, "case"), v.failedSoFar())
	case judge.Case:
		v.oneCase(e)
	case judge.Ended:
		v.end(e)
	}
}

func (v *TryView) failedSoFar() string {
	failed := 0
	for verdict, n := range v.solution.counts {
		if !verdict.Passing() {
			failed += n
		}
	}
	if failed == 0 {
		return ""
	}
	return fmt.Sprintf(", %d failed so far", failed)
}

// distribution is what a compiler's version says of who built it.
var distribution = regexp.MustCompile(` \([^)]*\)`)

// begin shows what is run, with what, and under which limits.
func (v *TryView) begin(plan judge.Plan) {
	if v.solution != nil {
		v.Screen.Print("")
	}
	v.solution = &tally{plan: plan, counts: map[verdict.Verdict]int{}}
	for _, i := range plan.Cases {
		v.solution.nameWide = max(v.solution.nameWide, width(shortName(v.Problem.Cases[i])))
	}
	name := strong.Render(Visible(plan.Solution.File))
	if v.Chosen != "" {
		name += " (" + v.Chosen + ")"
	}
	if b := plan.Build; b != nil {
		how := "built in " + Duration(b.Duration)
		if b.Cached {
			how = "built before"
		}
		if b.Failed {
			how = "not built"
		}
		title := b.Title()
		tool := distribution.ReplaceAllString(b.Tool, "")
		if !strings.HasPrefix(tool, title) {
			tool = title + ", " + tool
		}
		name += dim.Render(fmt.Sprintf(": %s, %s, %s", Visible(tool), Visible(b.Command), how))
		v.Screen.Print("%s", v.Screen.wrapped(normal, name, ""))
	} else {
		v.Screen.Print("%s", name)
	}
	v.Screen.Print("%s", v.Screen.wrapped(dim, limitWords(plan.Limits, plan.Unset), "  "))
	if v.hold != nil && !v.hold.Contained {
		v.Screen.Print("%s", v.Screen.wrapped(marked, "not contained: it can use the network and your files", "  "))
	}
}

// oneCase shows the line of a case: verdict, time, memory, name, remark.
func (v *TryView) oneCase(e judge.Case) {
	t := v.solution
	c := &v.Problem.Cases[e.Index]
	if c.Group != t.group || t.seen == 0 {
		t.group = c.Group
		v.Screen.Print("\n%s", strong.Render(Visible(c.Group)))
	}
	t.add(e, c.Name, c.Input.Size, v.Evidence, func(i int) int64 { return v.Problem.Cases[i].Input.Size })
	o := e.Outcome
	used := padLeft("", 8) + padLeft("", 10)
	if o.Ran {
		used = padLeft(Duration(o.Usage.CPU), 8) + padLeft(Size(o.Usage.Memory), 10)
	}
	room := v.Screen.Width - 2 - 4 - 18 - 2
	name := fit(shortName(*c), room)
	remark := ""
	if words := remarkWords(o); words != "" {
		wide := min(t.nameWide, room/2)
		if left := room - max(width(name), wide) - 2; left >= 12 {
			name = pad(name, wide)
			remark = "  " + dim.Render(fit(words, left))
		}
	}
	v.Screen.Print("  %s%s  %s%s", badges[o.Verdict], used, name, remark)
}

func remarkWords(o verdict.Outcome) string {
	words := Visible(o.Message)
	if s := o.Spread; s != nil {
		varied := fmt.Sprintf("%d runs, %s to %s", s.Runs, Duration(s.Least), Duration(s.Most))
		words = strings.TrimSuffix(varied+"; "+words, "; ")
	}
	if o.Unsteady {
		words = strings.TrimPrefix(words+", differs from run to run", ", ")
	}
	return words
}

// add takes a case into the sums.
func (t *tally) add(e judge.Case, name string, size int64, evidence int, sizeOf func(int) int64) {
	o := e.Outcome
	t.seen++
	t.counts[o.Verdict]++
	if o.Ran {
		limits := t.plan.Limits
		t.slowest.raise(float64(o.Usage.CPU)/float64(limits.Time), name, Duration(o.Usage.CPU))
		t.largest.raise(float64(o.Usage.Memory)/float64(limits.Memory), name, Size(o.Usage.Memory))
	}
	if o.Verdict == verdict.Accepted || o.Verdict == verdict.Skipped {
		return
	}
	t.failed = append(t.failed, failure{e.Index, o})
	slices.SortStableFunc(t.failed, func(a, b failure) int {
		return cmp.Or(
			cmp.Compare(order(a.outcome.Verdict), order(b.outcome.Verdict)),
			cmp.Compare(sizeOf(a.index), sizeOf(b.index)),
		)
	})
	t.failed = t.failed[:min(len(t.failed), max(evidence, 0))]
}

// order puts failures before outputs that nobody can judge.
func order(v verdict.Verdict) int {
	if v == verdict.Unjudged {
		return 1
	}
	return 0
}

func (x *extreme) raise(share float64, name, words string) {
	if share > x.share {
		*x = extreme{share, name, words}
	}
}

// end shows the evidence and the summary.
func (v *TryView) end(e judge.Ended) {
	t := v.solution
	s := v.Screen
	v.ended = append(v.ended, ending{t.plan.Solution.File, e.Verdict, t.plan.Solution.Expect})
	if b := t.plan.Build; b != nil && b.Failed {
		s.Print("\n%s", verdictStyle(verdict.CompileError).Render("the compiler says"))
		s.printText(verdict.Text{Bytes: []byte(b.Log)}, 30)
	}
	for _, f := range t.failed {
		v.evidence(f)
	}
	s.Print("")
	line := strong.Render(Visible(t.plan.Solution.File)+":") + " " + verdictStyle(e.Verdict).Render(e.Verdict.String())
	if words := v.countWords(); words != "" {
		line += " (" + words + ")"
	}
	if v.hold != nil && t.seen > 0 {
		switch {
		case !v.hold.Contained:
			line += ", " + marked.Render("not contained")
		case len(v.hold.Lacks()) > 0:
			line += ", " + marked.Render("not fully contained")
		}
	}
	s.Print("%s", s.wrapped(normal, line, ""))
	if e.Message != "" {
		s.Print("%s", s.wrapped(normal, Visible(e.Message), "  "))
	}
	for _, x := range []struct {
		word, limit string
		extreme
	}{
		{"slowest", Duration(t.plan.Limits.Time) + unsetWord(t.plan.Unset.Time != 0), t.slowest},
		{"largest", Size(t.plan.Limits.Memory) + unsetWord(t.plan.Unset.Memory != 0), t.largest},
	} {
		if x.name != "" {
			line := fmt.Sprintf("  %s %s of %s  ", x.word, x.words, x.limit)
			s.Print("%s%s", line, dim.Render(fit(Visible(x.name), s.Width-width(line))))
		}
	}
	if t.plan.Solution.Expect != "" && v.Expectations {
		s.Print("  %s", expectationWords(e.Verdict, t.plan.Solution.Expect))
	}
	s.Flush()
}

func unsetWord(unset bool) string {
	if unset {
		return " (default)"
	}
	return ""
}

func expectationWords(got verdict.Verdict, expect string) string {
	if expect == "" {
		expect = verdict.Accepted.String()
	}
	if Expected(got, expect) {
		return "as expected: " + expect
	}
	return marked.Render("expected: " + expect)
}

// countWords says how the cases ended, and how many were run.
func (v *TryView) countWords() string {
	t := v.solution
	if t.seen == 0 {
		return ""
	}
	var parts []string
	for got := verdict.Accepted; got <= verdict.Fault; got++ {
		if n := t.counts[got]; n > 0 {
			parts = append(parts, fmt.Sprintf("%s %s", thousands(int64(n)), got))
		}
	}
	if n := t.counts[verdict.Unjudged]; n > 0 {
		parts = append(parts, thousands(int64(n))+" unjudged")
	}
	of := count(t.seen, "case")
	if t.seen < len(v.Problem.Cases) {
		of = fmt.Sprintf("%s of %s", thousands(int64(t.seen)), count(len(v.Problem.Cases), "case"))
	}
	return fmt.Sprintf("%s: %s", of, strings.Join(parts, ", "))
}

// ShowExpectations shows a table of all solutions with the verdicts they got
// and must get.
func (v *TryView) ShowExpectations() {
	wide := 0
	for _, e := range v.ended {
		wide = max(wide, width(Visible(e.file)))
	}
	v.Screen.Print("")
	for _, e := range v.ended {
		words := expectationWords(e.got, e.expect)
		if e.got == verdict.Skipped {
			words = "not held against its expectation"
		}
		v.Screen.Print("  %s  %s  %s", pad(Visible(e.file), wide), verdictStyle(e.got).Render(pad(e.got.Short(), 3)), words)
	}
}

// Expected reports whether a solution got the verdict that it must get: the
// one it is expected to, and accepted where nothing is said.
func Expected(got verdict.Verdict, expect string) bool {
	return got.String() == expect || expect == "" && got == verdict.Accepted
}

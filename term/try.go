package term

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/prelude"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// A TryView shows a run of solutions as it happens. Tell it every event of
// the judge.
type TryView struct {
	Screen   *Screen
	Problem  *problem.Problem
	Evidence int    // for how many failing cases the evidence is shown
	Chosen   string // how the solution was chosen, if not by name: "edited last"
	// Expectations says that the verdict of each solution is compared with the one that it
	// must get.
	Expectations bool
	// Checked says that checked builds were asked for.
	Checked bool
	// Warnings shows what compilers said of sources that they built.
	Warnings bool
	// Together says that there are several solutions, to be shown in one table
	// when the last of them has ended.
	Together bool
	// Before is how cases ended in the run before, by name: then only those are
	// shown that ended in another way. Nil: all are.
	Before map[string]Before
	// Stderr shows what accepted cases wrote to standard error.
	Stderr bool
	// Show shows all that cases printed; ShownBefore is what they printed in the run before, by name: then what
	// changed is shown.
	Show        bool
	ShownBefore map[string]Shown
	// Brief is a group of which cases that passed are counted and not shown.
	Brief string
	// Names are what the solutions are called, by their index; nil: by their files.
	Names []string

	hold     *box.Hold // how programs are held; nil: none was run yet
	solution *tally
	all      []*tally
	limits   string // that were said last
}

// A Before is how a case ended in the run before.
type Before struct {
	Verdict verdict.Verdict
	Message string
}

// BeforeOf is what an outcome leaves for the next run to be compared with.
func BeforeOf(o verdict.Outcome) Before {
	switch o.Verdict {
	case verdict.WrongAnswer, verdict.RuntimeError, verdict.CompileError, verdict.Unjudged:
		return Before{o.Verdict, o.Message}
	}
	return Before{Verdict: o.Verdict} // else the message is about amounts, which vary
}

// Moment is a time of day as a heading for what began then.
func Moment(t time.Time) string { return strong.Render(t.Format(time.TimeOnly)) }

// A tally is what is known so far of the solution that runs now.
type tally struct {
	plan      judge.Plan
	name      string // of the solution
	group     string
	nameWide  int
	counts    map[verdict.Verdict]int
	seen      int
	sealed    int                     // failing cases of which nothing may be shown
	brief     map[verdict.Verdict]int // cases that were only counted
	unchanged int                     // ended as in the run before
	failed    []failure               // with the smallest inputs, smallest first
	slowest   extreme
	largest   extreme
	cells     map[int]cell            // by case, for a table
	outcomes  map[int]verdict.Outcome // by case, where the problem has parts
	ended     judge.Ended
	differs   *failure // of the cases whose answer is not that of another solution the one with the smallest input
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
		} else if weaker := e.Hold.Weaker(); weaker != "" {
			v.Screen.Remark("note: %s; 'cold host' says why and what to do", weaker)
		}
	case judge.Began:
		v.begin(e.Solution, e.Plan)
	case judge.Running:
		v.Screen.Progress("%s: %d of %s%s", v.solution.name, e.Finished, count(e.Total, "case"), v.failedSoFar())
	case judge.Case:
		name := v.Problem.Cases[e.Index].Name
		was, known := v.Before[name]
		same := known && was == BeforeOf(e.Outcome)
		evidence := v.Evidence
		if same {
			v.solution.unchanged++
		}
		if same || v.isBrief(e) || v.Together && e.Outcome.Verdict == verdict.Unjudged { // which the table shows
			evidence = -1
		}
		v.solution.add(e, v.Problem.Cases, evidence)
		if len(v.Problem.Parts) > 0 {
			v.solution.outcomes[e.Index] = e.Outcome
		}
		isBrief := v.isBrief(e)
		if v.Problem.Cases[e.Index].Group != v.Brief {
			v.briefly()
		}
		switch {
		case v.Together:
			v.solution.keep(e)
		case isBrief:
			v.solution.brief[e.Outcome.Verdict]++
		case same:
		case known && was.Verdict != e.Outcome.Verdict:
			v.oneCase(e, "was "+was.Verdict.Short())
		default:
			v.oneCase(e, "")
		}
		if v.Show && !v.Together && !isBrief {
			v.shown(e, same)
		}
	case judge.Amended:
		t := v.all[e.Solution]
		t.ended.Verdict, t.ended.Message = e.Verdict, e.Message
		if !v.Together {
			v.Screen.Print("\n%s", v.Screen.wrapped(marked, t.name+": not accepted any more: "+Visible(e.Message), ""))
		}
	case judge.Ended:
		v.solution.ended = e
		if !v.Together {
			v.briefly()
			v.failures(v.solution)
			v.summary(v.solution)
		}
	}
}

// briefly says how many cases of a group were passed that are not shown one by one.
func (v *TryView) briefly() {
	t := v.solution
	for _, one := range []struct {
		verdict verdict.Verdict
		words   string
	}{{verdict.Accepted, ""}, {verdict.Unjudged, ", held to the limits only"}} {
		if n := t.brief[one.verdict]; n > 0 {
			v.groupHeading(v.Brief)
			v.Screen.Print("  %s%s%s", badges[one.verdict], count(n, "case"), one.words)
		}
	}
	clear(t.brief)
}

// isBrief reports a case of which there is nothing to be said but that it is one more.
func (v *TryView) isBrief(e judge.Case) bool {
	o := e.Outcome
	return v.Brief != "" && v.Problem.Cases[e.Index].Group == v.Brief && o.Verdict.Passing() && !o.Close && !o.Unsteady && o.Differs == nil
}

// Interrupted shows what is known of a run that was ended before its end.
func (v *TryView) Interrupted() {
	if v.Together && len(v.all) > 0 {
		v.sideBySide()
		return
	}
	t := v.solution
	if t == nil || t.seen == 0 {
		return
	}
	v.briefly()
	v.failures(t)
	v.Screen.Print("\n%s %s", strong.Render(t.name+":"), marked.Render("interrupted")+" ("+t.countWords(len(v.Problem.Cases))+")")
	v.Screen.Flush()
}

// Close shows what could only be shown when all had ended.
func (v *TryView) Close() {
	if v.Together {
		v.sideBySide()
	}
	v.partsLine()
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

// begin takes a solution up, and shows its heading where it stands alone.
func (v *TryView) begin(index int, plan judge.Plan) {
	if v.solution != nil && !v.Together {
		v.Screen.Print("")
	}
	name := solutionName(plan.Solution)
	if index < len(v.Names) {
		name = v.Names[index]
	}
	v.solution = &tally{plan: plan, name: name, brief: map[verdict.Verdict]int{}, counts: map[verdict.Verdict]int{}, cells: map[int]cell{}, outcomes: map[int]verdict.Outcome{}}
	v.all = append(v.all, v.solution)
	for _, i := range plan.Cases {
		v.solution.nameWide = max(v.solution.nameWide, width(shortName(v.Problem.Cases[i])))
	}
	if !v.Together {
		v.heading(v.solution)
	}
}

// heading shows what is run, with what, and under which limits.
func (v *TryView) heading(t *tally) {
	s := v.Screen
	name := strong.Render(t.name)
	if v.Chosen != "" {
		name += " (" + v.Chosen + ")"
	}
	b := t.plan.Build
	if b != nil {
		name += dim.Render(": " + buildWords(b))
	}
	s.Print("%s", s.wrapped(normal, name, ""))
	// Of several that are held to the same, it is said once.
	if words := limitWords(t.plan.Limits, t.plan.Unset); words != v.limits || !v.Together {
		v.limits = words
		s.Print("%s", s.wrapped(dim, words, "  "))
	}
	if v.hold != nil && !v.hold.Contained {
		s.Print("%s", s.wrapped(marked, "not contained: it can use the network and your files", "  "))
	}
	if b == nil {
		return
	}
	if b.Checked {
		s.Print("%s", s.wrapped(marked, "checked build: slower and larger than a judge's, with wider limits; its times are no measure", "  "))
	}
	if v.Checked && !b.Checked {
		s.Print("%s", s.wrapped(marked, "there is no checked build in "+b.Language.Title+"; this is the usual one", "  "))
	}
	for _, note := range b.Notes {
		s.Print("%s", s.wrapped(marked, "note: "+note, "  "))
	}
	switch {
	case b.Failed || b.Log == "":
	case v.Warnings:
		s.Print("  %s", marked.Render("the compiler says"))
		s.printText(verdict.Text{Bytes: []byte(b.Log)}, mostLog)
	case warned.MatchString(b.Log):
		s.Print("%s", s.wrapped(dim, "the compiler warns; --warnings shows of what", "  "))
	}
}

// mostLog is how many lines of a compiler's words are shown.
const mostLog = 30

var warned = regexp.MustCompile(`(?i)\bwarning\b`)

// buildWords says what a solution was built with, and how.
func buildWords(b *toolchain.Build) string {
	how := "built in " + Duration(b.Duration)
	switch {
	case b.Failed:
		how = "not built"
	case b.Cached:
		how = "built before"
	}
	tool := distribution.ReplaceAllString(b.Tool, "")
	if title := b.Title(); !strings.HasPrefix(tool, title) {
		tool = title + ", " + tool
	}
	supplied := ""
	if lines := b.Supplied(); len(lines) > 0 {
		supplied = "supplied: " + prelude.Says(lines)
	}
	parts := slices.DeleteFunc([]string{tool, b.Command, how, supplied}, func(part string) bool { return part == "" })
	return Visible(strings.Join(parts, ", "))
}

// groupHeading begins a group, where another one was shown before.
func (v *TryView) groupHeading(group string) {
	t := v.solution
	if group == t.group {
		return
	}
	t.group = group
	heading := strong.Render(Visible(group))
	if words := v.ruleWords(t, group); words != "" {
		heading += dim.Render("  " + fit(words, v.Screen.Width-width(heading)-2))
	}
	v.Screen.Print("\n%s", heading)
}

// oneCase shows the line of a case: verdict, time, memory, name, remark.
func (v *TryView) oneCase(e judge.Case, was string) {
	c := &v.Problem.Cases[e.Index]
	v.groupHeading(c.Group)
	o := e.Outcome
	used := padLeft("", 8) + padLeft("", 10)
	if o.Ran {
		used = padLeft(Duration(o.Usage.CPU), 8) + padLeft(Size(o.Usage.Memory), 10)
	}
	words := remarkWords(o)
	for _, more := range []string{keptWord(c.Kept != ""), was} {
		if more != "" {
			words = strings.TrimSuffix(more+"; "+words, "; ")
		}
	}
	name, remark, below := v.besideName(shortName(*c), words)
	v.Screen.Print("  %s%s  %s%s", badges[o.Verdict], used, name, remark)
	for _, line := range below {
		v.Screen.Print("        %s", dim.Render(line))
	}
	if v.Stderr && o.Verdict == verdict.Accepted && len(o.Stderr.Bytes) > 0 {
		v.Screen.printText(o.Stderr, stderrMost)
	}
}

// Where a case's line has no room for its remark, the remark stands on lines of its own, of which
// there are at most remarkLines. A screen that has mostRemark columns for it is wide enough.
const (
	mostRemark  = 100
	remarkLines = 2
)

// besideName lays out the name of a case and its remark, which is never left out.
func (v *TryView) besideName(name, words string) (shown, beside string, below []string) {
	room := v.Screen.Width - 2 - 4 - usedWide - 2
	if words == "" {
		return fitMiddle(name, room), "", nil
	}
	wide := max(min(v.solution.nameWide, room*2/5), min(width(name), room-2-width(words)))
	if left := room - wide - 2; left >= width(words) || left >= mostRemark {
		return pad(fitMiddle(name, wide), wide), "  " + dim.Render(fit(words, left)), nil
	}
	below = wrapWords(words, v.Screen.Width-8)
	if len(below) > remarkLines {
		below = below[:remarkLines]
		below[remarkLines-1] = fit(below[remarkLines-1]+" …", v.Screen.Width-8)
	}
	return fitMiddle(name, room), "", below
}

// ruleWords says what verdict.toml has for a group: points, and limits of its
// own.
func (v *TryView) ruleWords(t *tally, group string) string {
	var parts []string
	rule := v.Problem.Rule(group)
	if rule.Points > 0 {
		parts = append(parts, points(rule.Points)+" points")
	}
	own, general := t.plan.LimitsOf(group), t.plan.Limits
	if own.Time != general.Time {
		parts = append(parts, "time "+Duration(own.Time))
	}
	if own.Wall != general.Wall {
		parts = append(parts, "wall "+Duration(own.Wall))
	}
	if own.Memory != general.Memory {
		parts = append(parts, "memory "+Size(own.Memory))
	}
	if own.Output != general.Output {
		parts = append(parts, "output "+Size(own.Output))
	}
	return strings.Join(parts, ", ")
}

// points shows a number of points.
func points(n float64) string { return trimZero(strconv.FormatFloat(n, 'f', 2, 64)) }

// score shows a solution's points by group and in all.
func (v *TryView) score(t *tally) {
	k := t.ended.Score
	if k == nil || len(k.Groups) == 0 {
		return
	}
	all := points(k.Points) + " of " + points(k.Possible) + " points"
	if !k.Known {
		all = "at least " + all
	}
	if v.Together {
		parts := make([]string, len(k.Groups))
		for i, g := range k.Groups {
			parts[i] = Visible(g.Name) + " " + groupPoints(g)
		}
		v.Screen.Print("%s", v.Screen.wrapped(normal, all+": "+strings.Join(parts, ", "), "  "))
		return
	}
	wide := 0
	for _, g := range k.Groups {
		wide = max(wide, width(Visible(g.Name)))
	}
	v.Screen.Print("  %s", strong.Render(all))
	for _, g := range k.Groups {
		v.Screen.Print("    %s  %s", pad(Visible(g.Name), wide), groupPoints(g))
	}
}

func groupPoints(g verdict.GroupScore) string {
	if !g.Known {
		return dim.Render("not known of " + points(g.Possible))
	}
	return points(g.Points) + " of " + points(g.Possible)
}

// keptWord marks a case whose answer proves no more than the program that made
// it.
func keptWord(kept bool) string {
	if kept {
		return "kept"
	}
	return ""
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
func (t *tally) add(e judge.Case, cases []problem.Case, evidence int) {
	o, name := e.Outcome, cases[e.Index].Name
	t.seen++
	t.counts[o.Verdict]++
	if o.Ran {
		limits := t.plan.LimitsOf(cases[e.Index].Group)
		t.slowest.raise(float64(o.Usage.CPU)/float64(limits.Time), name, Duration(o.Usage.CPU)+" of "+Duration(limits.Time))
		t.largest.raise(float64(o.Usage.Memory)/float64(limits.Memory), name, Size(o.Usage.Memory)+" of "+Size(limits.Memory))
	}
	if cases[e.Index].Sealed {
		if !o.Verdict.Passing() && o.Verdict != verdict.Skipped {
			t.sealed++
		}
		return
	}
	if o.Differs != nil && (t.differs == nil || cases[e.Index].Input.Size < cases[t.differs.index].Input.Size) {
		t.differs = &failure{e.Index, o}
	}
	if o.Verdict == verdict.Accepted || o.Verdict == verdict.Skipped || evidence < 0 {
		return
	}
	t.failed = append(t.failed, failure{e.Index, o})
	slices.SortStableFunc(t.failed, func(a, b failure) int {
		return cmp.Or(
			cmp.Compare(order(a.outcome.Verdict), order(b.outcome.Verdict)),
			cmp.Compare(cases[a.index].Input.Size, cases[b.index].Input.Size),
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

// failures shows why a source was not built, or the evidence for cases.
func (v *TryView) failures(t *tally) {
	s := v.Screen
	if b := t.plan.Build; b != nil && b.Failed {
		s.Print("\n%s", verdictStyle(verdict.CompileError).Render("the compiler says"+v.ofSolution(t)))
		s.printText(verdict.Text{Bytes: []byte(b.FirstError())}, mostLog)
		for _, hint := range t.ended.Hints {
			s.hint(hint)
		}
	}
	for _, f := range t.failed {
		v.evidence(t, f)
	}
	if t.sealed > 0 {
		s.Print("\n%s", s.wrapped(dim, "sealed"+v.ofSolution(t)+", so that nothing of them is shown: "+Count(t.sealed, "failing case"), ""))
	}
}

// ofSolution names a solution where several are shown together.
func (v *TryView) ofSolution(t *tally) string {
	if !v.Together {
		return ""
	}
	return " of " + t.name
}

// summary shows a solution's verdict, and how near it came to its limits.
func (v *TryView) summary(t *tally) {
	s, e := v.Screen, t.ended
	if !v.Together {
		s.Print("")
	}
	line := strong.Render(t.name+":") + " " + verdictStyle(e.Verdict).Render(e.Verdict.String())
	if words := t.countWords(len(v.Problem.Cases)); words != "" {
		line += " (" + words + ")"
	}
	if b := t.plan.Build; b != nil && b.Checked && t.seen > 0 {
		line += ", " + marked.Render("checked build")
	}
	if v.hold != nil && t.seen > 0 {
		switch {
		case !v.hold.Contained:
			line += ", " + marked.Render("not contained")
		case len(v.hold.Lacks()) > 0:
			line += ", " + marked.Render("not fully contained")
		}
	}
	slowest := t.slowest.words + unsetWord(t.plan.Unset.Time != 0)
	largest := t.largest.words + unsetWord(t.plan.Unset.Memory != 0)
	ran := t.slowest.name != ""
	if v.Together && ran {
		line += dim.Render(", at most " + slowest + " and " + largest)
	}
	if v.Before != nil && t.seen > 0 && t.unchanged == t.seen {
		line += dim.Render(", as before")
	}
	s.Print("%s", s.wrapped(normal, line, ""))
	if e.Message != "" {
		s.Print("%s", s.wrapped(normal, Visible(e.Message), "  "))
	}
	v.score(t)
	if n := v.keptAccepted(t); n > 0 {
		s.Print("%s", s.wrapped(dim, fmt.Sprintf("%s of these kept from a run: that proves no more than the program that made it", thousands(int64(n))), "  "))
	}
	if !v.Together && ran {
		s.Print("%s", s.wrapped(normal, "nearest to a limit: "+t.nearest(slowest, largest), "  "))
	}
	if t.plan.Solution.Expect != "" && v.Expectations {
		s.Print("  %s", expectationWords(e.Verdict, t.plan.Solution))
	}
	s.Flush()
}

// keptAccepted counts accepted cases whose answer was kept from a run.
func (v *TryView) keptAccepted(t *tally) int {
	if t.counts[verdict.Accepted] == 0 {
		return 0
	}
	n := 0
	for _, i := range t.plan.Cases {
		if v.Problem.Cases[i].Kept != "" {
			n++
		}
	}
	return n
}

// mostName is how much of a case's name is shown within a sentence, in columns.
const mostName = 50

// nearest says how near cases came to the limits of time and memory, and which cases.
func (t *tally) nearest(slowest, largest string) string {
	in := func(name string) string { return dim.Render(" in " + fitMiddle(Visible(name), mostName)) }
	if t.slowest.name == t.largest.name {
		return slowest + " and " + largest + in(t.slowest.name)
	}
	return slowest + in(t.slowest.name) + ", " + largest + in(t.largest.name)
}

func unsetWord(unset bool) string {
	if unset {
		return " (default)"
	}
	return ""
}

func expectationWords(got verdict.Verdict, s problem.Solution) string {
	expect := cmp.Or(s.Expect, verdict.Accepted.String())
	if s.Met(got) {
		return "as expected: " + expect
	}
	return marked.Render("expected: " + expect)
}

// countWords says how the cases ended, and how many were run.
func (t *tally) countWords(cases int) string {
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
	if t.seen < cases {
		of = fmt.Sprintf("%s of %s", thousands(int64(t.seen)), count(cases, "case"))
	}
	return fmt.Sprintf("%s: %s", of, strings.Join(parts, ", "))
}

// ShowExpectations shows a table of all solutions with the verdicts they got
// and must get.
func (v *TryView) ShowExpectations() {
	wide := 0
	for _, t := range v.all {
		wide = max(wide, width(t.name))
	}
	v.Screen.Print("")
	for _, t := range v.all {
		got := t.ended.Verdict
		words := expectationWords(got, t.plan.Solution)
		if got == verdict.Skipped {
			words = "not compared with its expectation"
		}
		v.Screen.Print("  %s  %s  %s", pad(t.name, wide), verdictStyle(got).Render(pad(got.Short(), 3)), words)
	}
}

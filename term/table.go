package term

import (
	"cmp"
	"maps"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/verdict"
)

// mostRows is how many cases a table of several solutions shows; of more, only
// those that one of them did not pass.
const mostRows = 400

// A cell is how a case ended for one solution.
type cell struct {
	verdict verdict.Verdict
	used    string // processor time and memory; empty: it was not run
	printed string // the beginning of an answer that nobody can judge
	differs bool   // it is not that of another solution
}

// usedWide is how wide a cell shows what a run took.
const usedWide = 8 + 10

// sideBySide shows several solutions together: what each was built with, a table
// of cases down and solutions across, then evidence and a summary for each.
func (v *TryView) sideBySide() {
	headed := map[string]bool{}
	for _, t := range v.all {
		if file := t.plan.Solution.File; !headed[file] || len(v.Problem.Parts) == 0 {
			headed[file] = true
			v.heading(t)
		}
	}
	columns := v.columns()
	rows := v.rows()
	nameWide := width("  they differ")
	for _, i := range rows {
		nameWide = max(nameWide, width(shortName(v.Problem.Cases[i])))
	}
	nameWide = min(nameWide, v.Screen.Width/3)
	for first := 0; first < len(columns); {
		first = v.columnsFrom(columns, first, rows, nameWide)
	}
	for _, t := range v.all {
		v.failures(t)
	}
	v.differences()
	v.Screen.Print("")
	for _, t := range v.all {
		v.summary(t)
	}
}

// rows lists the cases of the table, in case order.
func (v *TryView) rows() (rows []int) {
	all := 0
	for i := range v.Problem.Cases {
		run, failed := false, false
		for _, t := range v.all {
			if c, ok := t.cells[i]; ok {
				run, failed = true, failed || !c.verdict.Passing()
			}
		}
		if run {
			all++
		}
		brief := v.Brief != "" && v.Problem.Cases[i].Group == v.Brief
		if failed || run && len(v.Problem.Cases) <= mostRows && !brief {
			rows = append(rows, i)
		}
	}
	if len(rows) < all {
		v.Screen.Print("\n%s that every solution passed are left out", count(all-len(rows), "case"))
	}
	return rows
}

const (
	leastColumn = 4 + usedWide // a badge, a time and a size
	columnGap   = 2
)

// columns are the solutions as the table has them: one that answers the parts of a problem one by one is one column.
func (v *TryView) columns() (all []*tally) {
	if len(v.Problem.Parts) == 0 {
		return v.all
	}
	by := map[string]*tally{}
	for _, t := range v.all {
		file := t.plan.Solution.File
		one := by[file]
		if one == nil {
			one = &tally{plan: t.plan, name: v.fileName(t), cells: map[int]cell{}, ended: t.ended}
			by[file] = one
			all = append(all, one)
		} else {
			one.ended.Verdict = verdict.OfSolution([]verdict.Verdict{one.ended.Verdict, t.ended.Verdict})
		}
		maps.Copy(one.cells, t.cells)
	}
	return all
}

// fileName is the name of a solution without its arguments, which may say a part.
func (v *TryView) fileName(t *tally) string {
	return strings.TrimSuffix(t.name, strings.TrimPrefix(solutionName(t.plan.Solution), Visible(t.plan.Solution.File)))
}

// columnsFrom prints the table of as many solutions as fit, and returns the
// first that did not.
func (v *TryView) columnsFrom(all []*tally, first int, rows []int, nameWide int) (next int) {
	s := v.Screen
	room := s.Width - 2 - nameWide
	var columns []int
	head := pad("", 2+nameWide)
	for next = first; next < len(all); next++ {
		name := all[next].name
		wide := min(max(leastColumn, width(name)), 24)
		if room < columnGap+wide && next > first {
			break
		}
		room -= columnGap + wide
		columns = append(columns, wide)
		head += pad("", columnGap) + pad(strong.Render(fitMiddle(name, wide)), wide)
	}
	s.Print("\n%s", strings.TrimRight(head, " "))
	group := ""
	for n, i := range rows {
		c := v.Problem.Cases[i]
		if n == 0 || c.Group != group {
			group = c.Group
			s.Print("%s", strong.Render(Visible(group)))
		}
		line := "  " + pad(fitMiddle(shortName(c), nameWide), nameWide)
		for k, wide := range columns {
			one, ok := all[first+k].cells[i]
			text := pad("", wide)
			if ok {
				text = badges[one.verdict] + pad(one.used, wide-4)
			}
			line += pad("", columnGap) + text
		}
		s.Print("%s", strings.TrimRight(line, " "))
		v.printedRow(all, i, first, columns, nameWide)
	}
	line := pad(strong.Render("verdict"), 2+nameWide)
	for k, wide := range columns {
		got := all[first+k].ended.Verdict
		line += pad("", columnGap) + pad(verdictStyle(got).Render(got.Short()), wide)
	}
	s.Print("%s", strings.TrimRight(line, " "))
	v.pointsRow(all, first, columns, nameWide)
	return next
}

// printedRow shows under a case what was printed, where nobody can judge that.
func (v *TryView) printedRow(all []*tally, index, first int, columns []int, nameWide int) {
	word, style, shown := v.Problem.Kind().Printed, dim, false
	for _, t := range all {
		if t.cells[index].differs {
			word, style = "they differ", marked
		}
	}
	line := "  " + pad(style.Render(fit("  "+word, nameWide)), nameWide)
	for k, wide := range columns {
		text := all[first+k].cells[index].printed
		shown = shown || text != ""
		line += pad("", columnGap) + pad(style.Render(fit(text, wide)), wide)
	}
	if shown {
		v.Screen.Print("%s", strings.TrimRight(line, " "))
	}
}

// pointsRow shows the points of each solution, where there are any.
func (v *TryView) pointsRow(all []*tally, first int, columns []int, nameWide int) {
	line, shown := pad(strong.Render("points"), 2+nameWide), false
	for k, wide := range columns {
		text := ""
		if score := all[first+k].ended.Score; score != nil && len(score.Groups) > 0 {
			shown = true
			if text = points(score.Points) + " of " + points(score.Possible); !score.Known {
				text = "at least " + text
			}
		}
		line += pad("", columnGap) + pad(fit(text, wide), wide)
	}
	if shown {
		v.Screen.Print("%s", strings.TrimRight(line, " "))
	}
}

// keep takes a case into the table.
func (t *tally) keep(e judge.Case) {
	o := e.Outcome
	one := cell{verdict: o.Verdict, differs: o.Differs != nil}
	if o.Ran {
		one.used = padLeft(Duration(o.Usage.CPU), 8) + padLeft(Size(o.Usage.Memory), 10)
	}
	if o.Verdict == verdict.Unjudged && !o.NoAnswer {
		one.printed = cmp.Or(Visible(oneLine(o.Returned, string(o.Stdout.Bytes))), "nothing")
	}
	t.cells[e.Index] = one
}

// oneLine is the first of some texts that is not empty, its lines joined, so that a line shows
// that there are several.
func oneLine(texts ...string) string {
	text := strings.TrimRight(cmp.Or(texts...), " \t\r\n")
	return strings.ReplaceAll(text[:min(len(text), greatestWidth)], "\n", " ⏎ ")
}

// differences shows, for the case with the smallest input, what two solutions answered that
// cannot both be right.
func (v *TryView) differences() {
	var of *tally
	var shown *failure
	for _, t := range v.all {
		if d := t.differs; d != nil && (shown == nil || v.Problem.Cases[d.index].Input.Size < v.Problem.Cases[shown.index].Input.Size) {
			of, shown = t, d
		}
	}
	if shown == nil || v.Evidence == 0 {
		return
	}
	c := &v.Problem.Cases[shown.index]
	title := Visible(c.Name) + ": answered differently by " + v.all[shown.outcome.Differs.Solution].name + " and " + of.name + "; one of the two is wrong"
	v.Screen.Print("\n%s", v.Screen.wrapped(marked, title, ""))
	if words := v.answersWords(shown.index); words != "" {
		v.Screen.Print("%s", v.Screen.wrapped(normal, words, "  "))
	}
	v.facts(of.name, c, shown.outcome)
}

// mostAnswer is how much of an answer is shown beside others, in columns.
const mostAnswer = 30

// answersWords say who answered what to a case, where more than two did: "a.rb, c.js: 5; b.lua: 6".
func (v *TryView) answersWords(index int) string {
	var answers []string
	by := map[string][]string{}
	for _, t := range v.columns() {
		one, ok := t.cells[index]
		if !ok || one.verdict != verdict.Unjudged || one.printed == "" {
			continue
		}
		if by[one.printed] == nil {
			answers = append(answers, one.printed)
		}
		by[one.printed] = append(by[one.printed], t.name)
	}
	if len(answers) < 2 || len(v.columns()) < 3 {
		return ""
	}
	for i, answer := range answers {
		answers[i] = strings.Join(by[answer], ", ") + ": " + fit(answer, mostAnswer)
	}
	return strings.Join(answers, "; ")
}

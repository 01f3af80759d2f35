package term

import (
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// mostRows is how many cases a table of several solutions shows; of more, only
// those that one of them did not pass.
const mostRows = 400

// A cell is how a case ended for one solution.
type cell struct {
	verdict verdict.Verdict
	used    string // processor time; empty: it was not run
}

// sideBySide shows several solutions together: what each was built with, a table
// of cases down and solutions across, then evidence and a summary for each.
func (v *TryView) sideBySide() {
	for _, t := range v.all {
		v.heading(t)
	}
	rows := v.rows()
	nameWide := width("verdict")
	for _, i := range rows {
		nameWide = max(nameWide, width(shortName(v.Problem.Cases[i])))
	}
	nameWide = min(nameWide, v.Screen.Width/3)
	for first := 0; first < len(v.all); {
		first = v.columnsFrom(first, rows, nameWide)
	}
	for _, t := range v.all {
		v.failures(t)
	}
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
		if failed || run && len(v.Problem.Cases) <= mostRows {
			rows = append(rows, i)
		}
	}
	if len(rows) < all {
		v.Screen.Print("\n%s that every solution passed are left out", count(all-len(rows), "case"))
	}
	return rows
}

const (
	leastColumn = 4 + 8 // a badge and a time
	columnGap   = 2
)

// columnsFrom prints the table of as many solutions as fit, and returns the
// first that did not.
func (v *TryView) columnsFrom(first int, rows []int, nameWide int) (next int) {
	s := v.Screen
	room := s.Width - 2 - nameWide
	var columns []int
	head := pad("", 2+nameWide)
	for next = first; next < len(v.all); next++ {
		name := solutionName(v.all[next].plan.Solution)
		wide := min(max(leastColumn, width(name)), 24)
		if room < columnGap+wide && next > first {
			break
		}
		room -= columnGap + wide
		columns = append(columns, wide)
		head += pad("", columnGap) + pad(strong.Render(fit(name, wide)), wide)
	}
	s.Print("\n%s", strings.TrimRight(head, " "))
	group := ""
	for n, i := range rows {
		c := v.Problem.Cases[i]
		if n == 0 || c.Group != group {
			group = c.Group
			s.Print("%s", strong.Render(Visible(group)))
		}
		line := "  " + pad(fit(shortName(c), nameWide), nameWide)
		for k, wide := range columns {
			one, ok := v.all[first+k].cells[i]
			text := pad("", wide)
			if ok {
				text = badges[one.verdict] + pad(padLeft(one.used, 8), wide-4)
			}
			line += pad("", columnGap) + text
		}
		s.Print("%s", strings.TrimRight(line, " "))
	}
	line := pad(strong.Render("verdict"), 2+nameWide)
	for k, wide := range columns {
		got := v.all[first+k].ended.Verdict
		line += pad("", columnGap) + pad(verdictStyle(got).Render(got.Short()), wide)
	}
	s.Print("%s", strings.TrimRight(line, " "))
	return next
}

// solutionName is the file of a solution with its arguments, and its language where its extension
// does not say it.
func solutionName(s problem.Solution) string {
	name := strings.Join(append([]string{s.File}, s.Args...), " ")
	if s.Language != "" {
		name += " (" + s.Language + ")"
	}
	return Visible(name)
}

// keep takes a case into the table.
func (t *tally) keep(e judge.Case) {
	used := ""
	if e.Outcome.Ran {
		used = Duration(e.Outcome.Usage.CPU)
	}
	t.cells[e.Index] = cell{e.Outcome.Verdict, used}
}

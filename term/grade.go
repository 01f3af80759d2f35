package term

import (
	"fmt"
	"strings"

	"coldverdict/core/grade"
	"coldverdict/core/problem"
)

// Grades shows what a class reached.
func (s *Screen) Grades(p *problem.Problem, r *grade.Result) {
	s.Print("%s: %s of %s", strong.Render(Visible(p.Title)), Count(r.Pupils, "hand-in"), countPeople(len(r.People)))
	s.Print("")
	s.gradeTable(p, r)
	s.failedCases(p, r)
	s.alike(r)
	s.Flush()
}

func countPeople(n int) string {
	if n == 1 {
		return "1 person"
	}
	return thousands(int64(n)) + " people"
}

// gradeTable shows people down and groups across. Groups that do not fit are left out, and that is said.
func (s *Screen) gradeTable(p *problem.Problem, r *grade.Result) {
	wide := width("person")
	for _, one := range r.People {
		wide = max(wide, width(Visible(one.Name)))
	}
	wide = min(wide, 24)
	groups := p.Groups()
	columns, room := make([]int, 0, len(groups)), s.Width-2-wide-4-(2+sumWide)-minReason
	for _, group := range groups {
		column := max(width(Visible(group)), 9) + 2
		if room -= column; room < 0 {
			break
		}
		columns = append(columns, column)
	}
	head := "  " + pad("person", wide)
	for i, column := range columns {
		head += padLeft(Visible(groups[i]), column)
	}
	sum := "passed"
	if p.Pointed() {
		sum = "points"
	}
	s.Print("%s", dim.Render(head+padLeft(sum, 2+sumWide)))
	for _, one := range r.People {
		name := pad(fitMiddle(Visible(one.Name), wide), wide)
		if one.Counts < 0 {
			s.Print("  %s%s  %s", name, strings.Repeat(" ", total(columns)+2+sumWide), marked.Render(Visible(one.Lacks)))
			continue
		}
		t := &one.Tries[one.Counts]
		line := "  " + name
		for i, column := range columns {
			line += padLeft(groupWords(t, groups[i]), column)
		}
		line += padLeft(sumWords(t), 2+sumWide) + "  "
		if words := reasonWords(one); words != "" {
			line += badges[t.Verdict] + fit(words, s.Width-width(line)-4)
		} else {
			line += verdictStyle(t.Verdict).Render(t.Verdict.Short())
		}
		s.Print("%s", line)
	}
	if len(columns) < len(groups) {
		s.Print("  %s", dim.Render(fmt.Sprintf("%s left out for want of room; --csv and --report have all", Count(len(groups)-len(columns), "group"))))
	}
}

// How wide a sum is, and what is left for the reason at least.
const (
	sumWide   = 10
	minReason = 20
)

func total(columns []int) (n int) {
	for _, column := range columns {
		n += column
	}
	return n
}

// groupWords is what a try reached in a group: its points, or else the cases that passed.
func groupWords(t *grade.Tried, group string) string {
	if t.Score != nil {
		for _, g := range t.Score.Groups {
			if g.Name == group {
				if !g.Known {
					return "?/" + points(g.Possible)
				}
				return points(g.Points) + "/" + points(g.Possible)
			}
		}
	}
	if g, ok := t.Groups[group]; ok {
		return fmt.Sprintf("%d/%d", g.Passed, g.Cases)
	}
	return ""
}

func sumWords(t *grade.Tried) string {
	if t.Score != nil {
		return points(t.Score.Points) + "/" + points(t.Score.Possible)
	}
	if t.Cases == 0 {
		return ""
	}
	return fmt.Sprintf("%d/%d", t.Passed, t.Cases)
}

// reasonWords say which of several tries counts, and why it was not accepted.
func reasonWords(one grade.Graded) string {
	t := &one.Tries[one.Counts]
	var words []string
	if len(one.Tries) > 1 {
		words = append(words, fmt.Sprintf("try %d of %d", one.Counts+1, len(one.Tries)))
	}
	if t.Message != "" {
		words = append(words, Visible(t.Message))
	}
	return strings.Join(words, "; ")
}

// mostListed bounds the cases and the pairs that are shown.
const mostListed = 10

// failedCases says which cases failed for how many.
func (s *Screen) failedCases(p *problem.Problem, r *grade.Result) {
	for i, c := range r.Cases {
		if i == 0 {
			s.Print("\n%s", strong.Render("failed most"))
		}
		if i == mostListed {
			s.Print("  %s", dim.Render("and "+Count(len(r.Cases)-i, "case")+" more"))
			return
		}
		s.Print("  %s of %d  %s", padLeft(thousands(int64(c.Failed)), 4), r.Pupils, fitMiddle(Visible(p.Cases[c.Case].Name), s.Width-20))
	}
}

// alike says which hand-ins are the same but for names and spacing, or nearly so.
func (s *Screen) alike(r *grade.Result) {
	same, others := grade.Groups(r.Alike)
	if len(same)+len(others) == 0 {
		return
	}
	s.Print("\n%s", s.wrapped(normal, strong.Render("alike")+dim.Render(" (short programs can be so by chance; look at them)"), ""))
	for i, group := range same {
		if i == mostListed {
			s.Print("  %s", dim.Render("and "+Count(len(same)-i, "group")+" more"))
			break
		}
		var names []string
		for _, person := range group {
			names = append(names, Visible(r.People[person].Name))
		}
		s.Print("%s", s.wrapped(normal, listed(names)+": the same but for names and spacing", "  "))
	}
	for i, one := range others {
		if i == mostListed {
			s.Print("  %s", dim.Render("and "+Count(len(others)-i, "pair")+" more"))
			break
		}
		s.Print("  %s and %s: %.0f %% of the shorter one is in the other", Visible(r.People[one.A].Name), Visible(r.People[one.B].Name), 100*one.Share)
	}
}

// listed are words as a sentence has them: "a, b and c".
func listed(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	last := len(words) - 1
	return strings.Join(words[:last], ", ") + " and " + words[last]
}

// Packed says what was packed.
func (s *Screen) Packed(dir string, k *problem.Packed) {
	s.Print("packed %s into %s, with %s", Count(len(k.Files), "file"), Visible(dir), Count(k.Cases, "case"))
	for _, name := range k.Names() {
		s.Print("  %s", Visible(name))
	}
	if k.LeftOut > 0 {
		s.Print("left out: %s of %s", Count(k.LeftOut, "sealed case"), Visible(strings.Join(k.Groups, ", ")))
	}
}

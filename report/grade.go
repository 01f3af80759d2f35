package report

import (
	"fmt"
	"io"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/grade"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

// A grading is the JSON form of cold grade, described by docs/grade.schema.json.
type grading struct {
	Format  string        `json:"format"`
	Version int           `json:"version"`
	Problem string        `json:"problem"`
	People  []gradedHuman `json:"people"`
	Failed  []failedCase  `json:"failed_cases"`
	Alike   []alikePair   `json:"alike"`
}

type gradedHuman struct {
	Name   string      `json:"name"`
	Lacks  string      `json:"lacks,omitempty"` // why there is nothing to judge
	Counts *int        `json:"counts,omitempty"`
	Tries  []gradedTry `json:"tries"`
}

type gradedTry struct {
	File     string          `json:"file"`
	Saved    time.Time       `json:"saved"`
	Language string          `json:"language,omitempty"`
	Verdict  verdict.Verdict `json:"verdict"`
	Message  string          `json:"message,omitempty"`
	Passed   int             `json:"passed"`
	Cases    int             `json:"cases"`
	Points   *float64        `json:"points,omitempty"`
	Possible *float64        `json:"points_possible,omitempty"`
	Groups   []gradedGroup   `json:"groups"`
}

type gradedGroup struct {
	Name     string   `json:"name"`
	Passed   int      `json:"passed"`
	Cases    int      `json:"cases"`
	Points   *float64 `json:"points,omitempty"`
	Possible *float64 `json:"points_possible,omitempty"`
}

type failedCase struct {
	Case   string `json:"case"`
	People int    `json:"people"`
}

type alikePair struct {
	People [2]string `json:"people"`
	Same   bool      `json:"same"`
	Share  float64   `json:"share"`
}

// WriteGrades writes what a class reached as JSON.
func WriteGrades(out io.Writer, p *problem.Problem, r *grade.Result) error {
	all := grading{Format: "cold-verdict/grade", Version: 1, Problem: p.Name(), People: []gradedHuman{}, Failed: []failedCase{}, Alike: []alikePair{}}
	for _, one := range r.People {
		human := gradedHuman{Name: one.Name, Lacks: one.Lacks, Tries: []gradedTry{}}
		if one.Counts >= 0 {
			human.Counts, human.Lacks = &one.Counts, ""
		}
		for i, t := range one.Tries {
			human.Tries = append(human.Tries, newGradedTry(p, one.Person.Tries[i], t))
		}
		all.People = append(all.People, human)
	}
	for _, c := range r.Cases {
		all.Failed = append(all.Failed, failedCase{p.Cases[c.Case].Name, c.Failed})
	}
	for _, pair := range r.Alike {
		all.Alike = append(all.Alike, alikePair{[2]string{r.People[pair.A].Name, r.People[pair.B].Name}, pair.Same, pair.Share})
	}
	return writeIndented(out, all)
}

func newGradedTry(p *problem.Problem, of grade.Try, t grade.Tried) gradedTry {
	one := gradedTry{File: of.Name, Saved: of.Saved, Language: t.Language, Verdict: t.Verdict, Message: t.Message, Passed: t.Passed, Cases: t.Cases, Groups: []gradedGroup{}}
	scores := map[string]verdict.GroupScore{}
	if t.Score != nil {
		one.Points, one.Possible = &t.Score.Points, &t.Score.Possible
		for _, g := range t.Score.Groups {
			scores[g.Name] = g
		}
	}
	for _, name := range p.Groups() {
		group := gradedGroup{Name: name, Passed: t.Groups[name].Passed, Cases: t.Groups[name].Cases}
		if g, ok := scores[name]; ok {
			group.Possible = &g.Possible
			if g.Known {
				group.Points = &g.Points
			}
		}
		one.Groups = append(one.Groups, group)
	}
	return one
}

// gradeTable is the table of people by groups.
func gradeTable(p *problem.Problem, r *grade.Result) page.Table {
	t := page.Table{Title: "People", Main: true, Columns: []page.Column{{Name: "person", Key: "person"}}}
	groups := p.Groups()
	for _, name := range groups {
		t.Columns = append(t.Columns, page.Column{Name: name, Key: name, Number: true})
	}
	sum := page.Column{Name: "passed", Key: "passed", Number: true}
	if p.Pointed() {
		sum = page.Column{Name: "points", Key: "points", Number: true}
	}
	t.Columns = append(t.Columns, sum, page.Column{Name: "verdict", Key: "verdict"}, page.Column{Name: "reason", Key: "reason"}, page.Column{Name: "file", Key: "file"}, page.Column{Name: "tries", Key: "tries", Number: true})
	for _, one := range r.People {
		row := []page.Cell{{Text: one.Name}}
		if one.Counts < 0 {
			row = append(row, make([]page.Cell, len(groups)+2)...)
			t.Rows = append(t.Rows, append(row, page.Cell{Text: one.Lacks, Kind: page.Doubtful}, page.Cell{}, page.Cell{Text: "0"}))
			continue
		}
		tried := newGradedTry(p, one.Person.Tries[one.Counts], one.Tries[one.Counts])
		for _, g := range tried.Groups {
			row = append(row, groupCell(g))
		}
		total := page.Cell{Text: strconv.Itoa(tried.Passed)}
		if p.Pointed() {
			total = page.Cell{}
			if tried.Points != nil {
				total = page.Cell{Text: number(roundTo3(*tried.Points)) + " of " + number(*tried.Possible), Value: hundredths(*tried.Points), Share: portion(*tried.Points, *tried.Possible)}
			}
		}
		t.Rows = append(t.Rows, append(row, total, page.Cell{Text: tried.Verdict.String(), Kind: kindOf(tried.Verdict)}, page.Cell{Text: tried.Message}, page.Cell{Text: tried.File}, page.Cell{Text: strconv.Itoa(len(one.Tries))}))
	}
	return t
}

// groupCell is what a person reached in a group: its points where there are some, and else the cases that passed.
func groupCell(g gradedGroup) page.Cell {
	switch {
	case g.Points != nil:
		return page.Cell{Text: number(roundTo3(*g.Points)), Value: hundredths(*g.Points)}
	case g.Possible != nil || g.Cases == 0:
		return page.Cell{}
	}
	return page.Cell{Text: fmt.Sprintf("%d of %d", g.Passed, g.Cases), Value: strconv.Itoa(g.Passed)}
}

// hundredths are points as a table has them.
func hundredths(x float64) string {
	return strings.TrimSuffix(strings.TrimRight(strconv.FormatFloat(x, 'f', 2, 64), "0"), ".")
}

// WriteGradesCSV writes the table as CSV, RFC 4180.
func WriteGradesCSV(out io.Writer, p *problem.Problem, r *grade.Result) error {
	made := &page.Page{Tables: []page.Table{gradeTable(p, r)}}
	return page.Write(out, ".csv", made)
}

// GradesPage is the report on what a class reached.
func GradesPage(m Maker, p *problem.Problem, r *grade.Result) *page.Page {
	made := m.page(p.Title)
	made.Outcome = verdict.Count(r.Pupils, "hand-in")
	accepted := 0
	for _, one := range r.People {
		check := page.Check{Suite: p.Title, Name: one.Name, State: page.Skipped, Words: "nothing to judge", Message: one.Lacks}
		if one.Counts >= 0 {
			t := one.Tries[one.Counts]
			check.State, check.Words, check.Message = stateOf(t.Verdict), t.Verdict.String(), t.Message
			if t.Verdict == verdict.Accepted {
				accepted++
			}
		}
		made.Checks = append(made.Checks, check)
	}
	made.Facts = []page.Fact{{Name: "people", Text: strconv.Itoa(len(r.People))}, {Name: "accepted", Text: strconv.Itoa(accepted)}, {Name: "cases", Text: strconv.Itoa(len(p.Cases))}}
	made.Tables = []page.Table{gradeTable(p, r)}
	if len(r.Cases) > 0 {
		t := page.Table{Title: "Failed most", Columns: []page.Column{{Name: "case"}, {Name: "people", Number: true}}}
		for _, c := range r.Cases {
			t.Rows = append(t.Rows, []page.Cell{{Text: p.Cases[c.Case].Name}, {Text: strconv.Itoa(c.Failed), Share: portion(float64(c.Failed), float64(r.Pupils))}})
		}
		made.Tables = append(made.Tables, t)
	}
	if len(r.Alike) > 0 {
		t := page.Table{Title: "Alike", Columns: []page.Column{{Name: "people"}, {Name: "share", Number: true}, {Name: "remark"}}}
		same, others := grade.Groups(r.Alike)
		for _, group := range same {
			var names []string
			for _, person := range group {
				names = append(names, r.People[person].Name)
			}
			t.Rows = append(t.Rows, []page.Cell{{Text: strings.Join(names, ", ")}, {Text: "100 %", Value: "1"}, {Text: "the same but for names and spacing"}})
		}
		for _, pair := range others {
			t.Rows = append(t.Rows, []page.Cell{{Text: r.People[pair.A].Name + ", " + r.People[pair.B].Name}, {Text: fmt.Sprintf("%.0f %%", 100*pair.Share), Value: number(pair.Share)}, {}})
		}
		made.Tables = append(made.Tables, t)
		made.Notes = append(made.Notes, "Short programs can be alike by chance; look at them.")
	}
	return made
}

// EmptyPage is the page of a person of whom there is nothing to judge.
func EmptyPage(m Maker, name, lacks string) *page.Page {
	made := m.page(name)
	made.Outcome, made.Kind = lacks, page.Doubtful
	return made
}

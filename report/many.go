package report

import (
	"fmt"
	"io"
	"strconv"

	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

// A Many collects the results of many problems for the JSON form of cold try -r.
type Many struct {
	Format   string   `json:"format"`
	Version  int      `json:"version"`
	Problems []ofMany `json:"problems"`
}

type ofMany struct {
	Folder  string `json:"folder"`
	Error   string `json:"error,omitempty"` // why it was not tried
	Results *Try   `json:"results,omitempty"`
}

// NewMany returns an empty report.
func NewMany() *Many { return &Many{Format: "cold-verdict/many", Version: 1, Problems: []ofMany{}} }

// Add adds a problem; an error says why it was not tried.
func (m *Many) Add(folder string, results *Try, err error) {
	one := ofMany{Folder: folder, Results: results}
	if err != nil {
		one.Error, one.Results = err.Error(), nil
	}
	m.Problems = append(m.Problems, one)
}

// Write writes the report as indented JSON.
func (m *Many) Write(w io.Writer) error { return writeIndented(w, m) }

// Page is the report on many problems.
func (m *Many) Page(maker Maker) *page.Page {
	made := maker.page("many problems")
	table := page.Table{Title: "Problems", Main: true, Columns: []page.Column{
		{Name: "problem", Key: "problem"}, {Name: "solution", Key: "solution"}, {Name: "verdict", Key: "verdict"}, {Name: "passed", Key: "passed", Number: true}, {Name: "of", Key: "cases", Number: true},
		{Name: "points", Key: "points", Number: true}, {Name: "most time", Key: "cpu_seconds", Number: true}, {Name: "remark", Key: "message"},
	}}
	accepted := 0
	for _, one := range m.Problems {
		if one.Results == nil {
			table.Rows = append(table.Rows, []page.Cell{{Text: one.Folder}, {}, {Text: "not tried", Kind: page.Doubtful}, {}, {}, {}, {}, {Text: one.Error}})
			made.Checks = append(made.Checks, page.Check{Suite: one.Folder, Name: "problem", State: page.Errored, Words: "not tried", Message: one.Error})
			continue
		}
		passes := len(one.Results.Solutions) > 0
		for _, s := range one.Results.Solutions {
			table.Rows = append(table.Rows, manyRow(one.Folder, s))
			passes = passes && s.Verdict == verdict.Accepted
			if len(s.Cases) == 0 {
				made.Checks = append(made.Checks, page.Check{Suite: one.Folder, Name: s.File, State: stateOf(s.Verdict), Words: s.Verdict.String(), Message: s.Message})
			}
			for _, c := range s.Cases {
				check := page.Check{Suite: one.Folder, Name: solutionKey(s.File, s.Args) + " " + c.Name, State: stateOf(c.Verdict), Words: c.Verdict.String(), Message: c.Message}
				if c.CPUSeconds != nil {
					check.Seconds = *c.CPUSeconds
				}
				made.Checks = append(made.Checks, check)
			}
		}
		if passes {
			accepted++
		}
	}
	made.Outcome, made.Kind = fmt.Sprintf("%d of %s accepted", accepted, verdict.Count(len(m.Problems), "problem")), page.Good
	if accepted < len(m.Problems) {
		made.Kind = page.Wrong
	}
	made.Tables = []page.Table{table}
	return made
}

func manyRow(folder string, s solution) []page.Cell {
	passed, most := 0, 0.0
	for _, c := range s.Cases {
		if c.Verdict.Passing() {
			passed++
		}
		if c.CPUSeconds != nil {
			most = max(most, *c.CPUSeconds)
		}
	}
	points := page.Cell{}
	if s.Points != nil && s.Possible != nil {
		points = page.Cell{Text: number(roundTo3(*s.Points)) + " of " + number(*s.Possible), Value: number(*s.Points)}
	}
	return []page.Cell{
		{Text: folder}, {Text: solutionKey(s.File, s.Args)}, {Text: s.Verdict.String(), Kind: kindOf(s.Verdict)}, {Text: strconv.Itoa(passed)}, {Text: strconv.Itoa(len(s.Cases))}, points,
		{Text: timeLabelled(most), Value: fmt.Sprintf("%.6f", most)}, {Text: s.Message},
	}
}

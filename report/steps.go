package report

import (
	"io"

	"coldverdict/core/steps"
	"coldverdict/core/verdict"
	"coldverdict/report/page"
)

// A recorded is the JSON form of cold steps, described by docs/steps.schema.json.
type recorded struct {
	Format   string         `json:"format"`
	Version  int            `json:"version"`
	File     string         `json:"file"`
	Case     string         `json:"case"`
	Language string         `json:"language"`
	Total    int            `json:"total"`
	Cut      string         `json:"cut,omitempty"` // why the recording ends before the program
	Steps    []recordedStep `json:"steps"`
	Partings []parting      `json:"partings,omitempty"`
}

type recordedStep struct {
	Number   int              `json:"number"`
	Line     int              `json:"line"`
	Depth    int              `json:"depth"`
	Function string           `json:"function"`
	Begins   bool             `json:"begins,omitempty"`    // the first of a call
	Args     int              `json:"arguments,omitempty"` // so many of the changes are those
	Changes  []recordedChange `json:"changes,omitempty"`
	Output   string           `json:"output,omitempty"`
	OutputAt int              `json:"output_at,omitempty"` // number of the step
	Error    string           `json:"error,omitempty"`
	Warning  string           `json:"warning,omitempty"`
	Returned string           `json:"returned,omitempty"`
}

type recordedChange struct {
	Name   string `json:"name"`
	Value  string `json:"value"`
	Global bool   `json:"global,omitempty"` // it belongs to no call
	At     int    `json:"at,omitempty"`     // number of the step by which it was so; 0: the step itself
}

type parting struct {
	Name   string `json:"name"`
	Theirs string `json:"their_name"`
	Change int    `json:"change"`
	Value  string `json:"value"`
	Other  string `json:"other"`
	Line   int    `json:"line,omitempty"`
	Beside int    `json:"other_line,omitempty"`
}

// mostWalked is how many steps are on a page.
const mostWalked = 5000

// WriteWalk writes the page on which a recording is walked through.
func WriteWalk(out io.Writer, m Maker, file, test string, r *steps.Recording, outcome verdict.Outcome) error {
	list := recordedSteps(r.Steps[max(0, len(r.Steps)-mostWalked):])
	note := verdict.Count(r.Total, "step")
	if r.Cut {
		note += "; the recording ends since " + r.Why
	}
	if len(list) < r.Total {
		note += "; the last " + verdict.Thousands(int64(len(list))) + " are here"
	}
	made := m.page("")
	return page.WriteWalk(out, &page.Walk{Title: file + " on " + test, Outcome: outcome.Said(), Kind: kindOf(outcome.Verdict), Note: note, Maker: made.Maker, Made: made.Made, Source: r.Source, Steps: list})
}

// WriteSteps writes a recording as JSON.
func WriteSteps(out io.Writer, file, test string, r *steps.Recording, partings []steps.Parting) error {
	all := recorded{Format: "cold-verdict/steps", Version: 1, File: file, Case: test, Language: r.Language, Total: r.Total, Steps: []recordedStep{}}
	if r.Cut {
		all.Cut = r.Why
	}
	all.Steps = recordedSteps(r.Steps)
	for _, p := range partings {
		all.Partings = append(all.Partings, parting{p.Name, p.Theirs, p.Change, p.Value, p.Other, p.Line, p.Beside})
	}
	return writeIndented(out, all)
}

func recordedSteps(list []steps.Step) []recordedStep {
	all := []recordedStep{}
	for _, s := range list {
		one := recordedStep{s.Number, s.Line, s.Depth, s.Function, s.Begins, s.Arguments, nil, s.Output, s.OutputAt, s.Error, s.Warning, s.Returned}
		for _, c := range s.Changes {
			if c.At <= s.Number {
				c.At = 0
			}
			one.Changes = append(one.Changes, recordedChange(c))
		}
		all = append(all, one)
	}
	return all
}

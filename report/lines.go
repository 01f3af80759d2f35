package report

import (
	"encoding/json"
	"io"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
)

// Lines writes the events of cold try as they happen, each as a JSON object on a line of its own, by
// docs/lines.schema.json.
type Lines struct {
	try     *Try
	encoder *json.Encoder
	err     error
}

// A line is one event.
type line struct {
	Event    string    `json:"event"` // "begin", "solution", "case", "amended" or "end"
	Format   string    `json:"format,omitempty"`
	Version  int       `json:"version,omitempty"`
	Problem  string    `json:"problem,omitempty"`
	Cases    *int      `json:"cases,omitempty"` // that the solution runs
	File     string    `json:"file,omitempty"`
	Args     []string  `json:"args,omitempty"`
	Solution *solution `json:"solution,omitempty"`
	Case     *testCase `json:"case,omitempty"`
}

// NewLines begins to write the events of a run.
func NewLines(w io.Writer, p *problem.Problem) *Lines {
	l := &Lines{try: NewTry(p), encoder: json.NewEncoder(w)}
	l.encoder.SetEscapeHTML(false)
	l.write(line{Event: "begin", Format: "cold-verdict/lines", Version: 1, Problem: p.Name()})
	return l
}

func (l *Lines) write(one line) {
	if l.err == nil {
		l.err = l.encoder.Encode(one)
	}
}

// Err is the first error of the writer.
func (l *Lines) Err() error { return l.err }

// Tell takes one event of the judge.
func (l *Lines) Tell(event judge.Event) {
	l.try.Tell(event)
	switch e := event.(type) {
	case judge.Began:
		s, n := l.try.Solutions[len(l.try.Solutions)-1], len(e.Plan.Cases)
		l.write(line{Event: "solution", File: s.File, Args: e.Plan.Solution.Args, Cases: &n, Solution: &s})
	case judge.Case:
		s := &l.try.Solutions[len(l.try.Solutions)-1]
		one := s.Cases[len(s.Cases)-1]
		s.Cases = s.Cases[:0] // that memory stays flat
		l.write(line{Event: "case", File: s.File, Case: &one})
	case judge.Amended:
		s := l.try.Solutions[e.Solution]
		l.write(line{Event: "amended", File: s.File, Solution: &s})
	case judge.Ended:
		s := l.try.Solutions[len(l.try.Solutions)-1]
		l.write(line{Event: "end", File: s.File, Solution: &s})
	}
}

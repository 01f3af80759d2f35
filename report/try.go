// Package report writes results for other programs.
//
// What it writes is described by a JSON Schema in docs/try.schema.json. Facts
// that are not known are left out, never written as zero.
package report

import (
	"cmp"
	"encoding/json"
	"io"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Try collects the events of a run for the JSON form of cold try.
type Try struct {
	Format    string     `json:"format"`
	Version   int        `json:"version"`
	Problem   string     `json:"problem"`
	Share     *share     `json:"share,omitempty"` // of the cases or the solutions, where it is not all
	Solutions []solution `json:"solutions"`

	// Expectations says that solutions are compared with the verdicts that they must get, which are noted then.
	Expectations bool `json:"-"`

	problem *problem.Problem
	hold    *box.Hold
}

type solution struct {
	File     string          `json:"file"`
	Language string          `json:"language,omitempty"`
	Args     []string        `json:"args,omitempty"`
	Role     string          `json:"role"`
	Expect   string          `json:"expect,omitempty"` // the verdict that it must get, where that was asked for
	Verdict  verdict.Verdict `json:"verdict"`
	Message  string          `json:"message,omitempty"`
	Hints    []string        `json:"hints,omitempty"`
	// Contained says that programs could not use the network or the person's
	// files; Lacks lists what could not be kept from them.
	Contained *bool    `json:"contained,omitempty"`
	Lacks     []string `json:"lacks,omitempty"`
	Build     *build   `json:"build,omitempty"`
	// Points are those of the groups of which they are known; Groups has each.
	Points   *float64     `json:"points,omitempty"`
	Possible *float64     `json:"points_possible,omitempty"`
	Groups   []groupScore `json:"groups,omitempty"`
	Cases    []testCase   `json:"cases"`
}

type groupScore struct {
	Name     string   `json:"name"`
	Points   *float64 `json:"points,omitempty"`
	Possible float64  `json:"points_possible"`
}

type build struct {
	Seconds float64 `json:"seconds"`
	Cached  bool    `json:"cached"`
	Log     string  `json:"log"`
	// Checked says that it is a checked build, run with wider limits.
	Checked bool     `json:"checked,omitempty"`
	Notes   []string `json:"notes,omitempty"` // what a judge may have against the source
}

type testCase struct {
	Name        string          `json:"name"`
	Kept        bool            `json:"kept,omitempty"`
	Sealed      bool            `json:"sealed,omitempty"`
	Verdict     verdict.Verdict `json:"verdict"`
	CPUSeconds  *float64        `json:"cpu_seconds,omitempty"`
	WallSeconds *float64        `json:"wall_seconds,omitempty"`
	MemoryBytes *int64          `json:"memory_bytes,omitempty"`
	ExitCode    *int            `json:"exit_code,omitempty"`
	Signal      string          `json:"signal,omitempty"`
	Message     string          `json:"message,omitempty"`
	Runs        *runs           `json:"runs,omitempty"`
	Stdout      *string         `json:"stdout,omitempty"`
	StdoutCut   bool            `json:"stdout_cut,omitempty"`
	Stderr      *string         `json:"stderr,omitempty"`
	StderrCut   bool            `json:"stderr_cut,omitempty"`
	Returned    string          `json:"returned,omitempty"`
	Methods     []methodTime    `json:"methods,omitempty"`
	Difference  *difference     `json:"difference,omitempty"`
	Differs     *differs        `json:"differs,omitempty"`
	Share       *float64        `json:"share,omitempty"`
	Checker     string          `json:"checker,omitempty"` // what it wrote beside its decision
	Talk        *[]said         `json:"talk,omitempty"`
	TalkLeftOut int             `json:"talk_left_out,omitempty"`
	Hints       []string        `json:"hints,omitempty"`
}

type runs struct {
	Count  int     `json:"count"`
	Least  float64 `json:"least_cpu_seconds"`
	Median float64 `json:"median_cpu_seconds"`
	Most   float64 `json:"most_cpu_seconds"`
}

// A methodTime is what all calls of a method of a class took.
type methodTime struct {
	Method string  `json:"method"`
	Calls  int     `json:"calls"`
	CPU    float64 `json:"cpu_seconds"`
}

type difference struct {
	Path     string `json:"path,omitempty"` // of values
	Line     int    `json:"line,omitempty"`
	Column   int    `json:"column,omitempty"`
	Expected string `json:"expected"`
	Got      string `json:"got"`
	Differ   int    `json:"differ,omitempty"` // in all
	Unit     string `json:"unit,omitempty"`   // "line" or "word"
	Answer   int    `json:"answer,omitempty"`
	Answers  int    `json:"answers,omitempty"`
}

// differs is where an answer that nobody can judge parts from that of another solution.
type differs struct {
	File string `json:"file"` // of the other one, which printed what is "expected"
	difference
}

// A said is one line of a talk.
type said struct {
	By      string  `json:"by"` // "candidate" or "interactor"
	Seconds float64 `json:"seconds"`
	Text    string  `json:"text"`
}

// NewTry returns an empty report on a problem.
func NewTry(p *problem.Problem) *Try {
	return &Try{
		Format: "cold-verdict/try", Version: 1, Problem: p.Name(),
		Solutions: []solution{}, problem: p,
	}
}

// Tell takes one event of the judge.
func (t *Try) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Held:
		t.hold = &e.Hold
	case judge.Began:
		s := newSolution(e.Plan)
		if t.Expectations {
			s.Expect = cmp.Or(e.Plan.Solution.Expect, verdict.Accepted.String())
		}
		if t.hold != nil && e.Plan.Build != nil && !e.Plan.Build.Failed {
			s.Lacks = t.hold.Lacks()
			contained := t.hold.Contained && len(s.Lacks) == 0
			s.Contained = &contained
		}
		t.Solutions = append(t.Solutions, s)
	case judge.Case:
		s := &t.Solutions[len(t.Solutions)-1]
		one := newCase(t.problem.Cases[e.Index], e.Outcome)
		if d := e.Outcome.Differs; d != nil {
			one.Differs = &differs{t.Solutions[d.Solution].File, newDifference(d.Difference)}
		}
		s.Cases = append(s.Cases, one)
	case judge.Amended:
		s := &t.Solutions[e.Solution]
		s.Verdict, s.Message = e.Verdict, e.Message
	case judge.Ended:
		s := &t.Solutions[len(t.Solutions)-1]
		s.Verdict, s.Message, s.Hints = e.Verdict, e.Message, e.Hints
		if k := e.Score; k != nil {
			s.Points, s.Possible = &k.Points, &k.Possible
			for _, g := range k.Groups {
				one := groupScore{Name: g.Name, Possible: g.Possible}
				if g.Known {
					one.Points = &g.Points
				}
				s.Groups = append(s.Groups, one)
			}
		}
	}
}

// Write writes the report as indented JSON.
func (t *Try) Write(w io.Writer) error { return writeIndented(w, t) }

func writeIndented(w io.Writer, v any) error {
	encoder := json.NewEncoder(w)
	encoder.SetEscapeHTML(false)
	encoder.SetIndent("", "  ")
	return encoder.Encode(v)
}

func newSolution(plan judge.Plan) solution {
	s := solution{
		File: plan.Solution.File, Args: plan.Solution.Args, Language: plan.Language, Role: plan.Solution.Role,
		Cases: []testCase{},
	}
	if b := plan.Build; b != nil {
		s.Build = &build{Seconds: b.Duration.Seconds(), Cached: b.Cached, Log: b.Log, Checked: b.Checked, Notes: b.Notes}
	}
	return s
}

func newCase(p problem.Case, o verdict.Outcome) testCase {
	c := testCase{Name: p.Name, Kept: p.Kept != "", Sealed: p.Sealed, Verdict: o.Verdict, Signal: o.Signal, Message: o.Message, Hints: o.Hints}
	if o.Unsteady {
		c.Hints = append(c.Hints[:len(c.Hints):len(c.Hints)], "differs from run to run")
	}
	if d := o.Difference; d != nil {
		one := newDifference(d)
		c.Difference = &one
	}
	if o.Verdict == verdict.Partial {
		c.Share = &o.Share
	}
	c.Returned = o.Returned
	for _, m := range o.Methods {
		c.Methods = append(c.Methods, methodTime{m.Method, m.Calls, m.CPU.Seconds()})
	}
	c.Checker = string(o.Checker.Bytes)
	if k := o.Talk; k != nil {
		lines := []said{}
		for _, line := range k.Lines {
			by := "candidate"
			if line.ByOther {
				by = "interactor"
			}
			lines = append(lines, said{by, line.After.Seconds(), line.Text})
		}
		c.Talk, c.TalkLeftOut = &lines, k.LeftOut
	}
	if s := o.Spread; s != nil {
		c.Runs = &runs{s.Runs, s.Least.Seconds(), s.Median.Seconds(), s.Most.Seconds()}
	}
	if !o.Ran {
		return c
	}
	cpu, wall, memory := o.Usage.CPU.Seconds(), o.Usage.Wall.Seconds(), o.Usage.Memory
	c.CPUSeconds, c.WallSeconds, c.MemoryBytes = &cpu, &wall, &memory
	if p.Sealed {
		return c
	}
	if o.Signal == "" && !killed(o.Verdict) {
		c.ExitCode = &o.ExitCode
	}
	stdout, stderr := string(o.Stdout.Bytes), string(o.Stderr.Bytes)
	c.Stdout, c.StdoutCut, c.Stderr, c.StderrCut = &stdout, o.Stdout.Cut, &stderr, o.Stderr.Cut
	return c
}

func newDifference(d *verdict.Difference) difference {
	return difference{d.Path, d.Line, d.Column, d.Expected, d.Got, d.Differ, d.Unit, d.Answer.Number, d.Answer.Of}
}

// killed reports whether a run with this verdict was ended by us, and so has
// no exit status.
func killed(v verdict.Verdict) bool {
	switch v {
	case verdict.TimeLimit, verdict.Stalled, verdict.MemoryLimit, verdict.OutputLimit:
		return true
	}
	return false
}

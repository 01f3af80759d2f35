package history

import (
	"bytes"
	"cmp"
	"os"
	"strings"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Recorder makes attempts of the events of a judge.
type Recorder struct {
	problem *problem.Problem
	options Options
	begun   map[int]*attempt // by solution
	order   []int
	now     func() time.Time
}

// An attempt is one that goes on.
type attempt struct {
	Attempt
	ended    bool
	verdicts map[string][]verdict.Verdict // by group
	runs     int                          // cases that the problem has for the solution
	passed   map[int]bool                 // cases, by index
}

// Options say what is recorded.
type Options struct {
	Command string // "try" or "ready"
	Eased   bool   // not the problem's own limits counted, so that nothing is solved
}

// NewRecorder returns a recorder for a command that runs solutions on the cases of p.
func NewRecorder(p *problem.Problem, o Options, now func() time.Time) *Recorder {
	return &Recorder{problem: p, options: o, begun: map[int]*attempt{}, now: now}
}

// Tell takes one event.
func (r *Recorder) Tell(event judge.Event) {
	switch e := event.(type) {
	case judge.Began:
		r.begin(e)
	case judge.Case:
		r.note(r.begun[e.Solution], e)
	case judge.Amended:
		a := r.begun[e.Solution]
		a.Verdict, a.Message = e.Verdict, e.Message
	case judge.Ended:
		r.end(r.begun[e.Solution], e)
	}
}

func (r *Recorder) begin(e judge.Began) {
	s := e.Plan.Solution
	a := &attempt{verdicts: map[string][]verdict.Verdict{}, passed: map[int]bool{}, Attempt: Attempt{
		At: r.now(), Command: r.options.Command, File: s.File, Args: s.Args, Language: e.Plan.Language, Limits: e.Plan.Limits,
	}}
	if text, err := os.ReadFile(r.problem.Path(s)); err == nil && len(text) <= MostSource {
		a.Source = text
	}
	for _, c := range r.problem.Cases {
		if s.Runs(c.Group) {
			a.runs++
		}
	}
	r.begun[e.Solution] = a
	r.order = append(r.order, e.Solution)
}

func (r *Recorder) note(a *attempt, e judge.Case) {
	c, o := &r.problem.Cases[e.Index], e.Outcome
	if o.Verdict == verdict.Skipped {
		return
	}
	a.Cases++
	if o.Verdict.Passing() {
		a.Passed++
		a.passed[e.Index] = o.Verdict == verdict.Accepted || len(r.problem.Parts) == 0
	}
	if o.Ran {
		a.CPU, a.Memory = max(a.CPU, o.Usage.CPU), max(a.Memory, o.Usage.Memory)
	}
	a.verdicts[c.Group] = append(a.verdicts[c.Group], o.Verdict)
	if state := stateOf(c, o); state != "" && !c.Sealed {
		a.Answers = append(a.Answers, Answer{c.Name, answerOf(c, o), state})
	}
}

// stateOf says what is known of an answer that nobody confirmed; "": it is compared with one that is known.
func stateOf(c *problem.Case, o verdict.Outcome) string {
	switch {
	case o.NoAnswer:
		return ""
	case o.Verdict == verdict.Unjudged:
		return "open"
	case c.Kept != "" && o.Verdict == verdict.Accepted:
		return "kept"
	case len(c.Refused) > 0 && o.Verdict == verdict.WrongAnswer:
		return "refused"
	}
	return ""
}

// answerOf is what a solution answered, or its beginning.
func answerOf(c *problem.Case, o verdict.Outcome) string {
	text := []byte(cmp.Or(o.Returned, string(o.Stdout.Bytes)))
	if len(text) == 0 && o.Verdict == verdict.Accepted && len(c.Accepted) > 0 { // of what passes nothing is kept
		text, _ = c.Accepted[0].Head(MostAnswer)
	}
	text = bytes.TrimSpace(text)
	return strings.ToValidUTF8(string(text[:min(len(text), MostAnswer)]), "")
}

func (r *Recorder) end(a *attempt, e judge.Ended) {
	a.ended = true
	a.Verdict, a.Message = e.Verdict, e.Message
	a.Whole = a.runs > 0 && a.Cases == a.runs
	for _, name := range r.problem.Groups() {
		list := a.verdicts[name]
		if len(list) == 0 {
			continue
		}
		g := Group{Name: name, Verdict: verdict.OfSolution(list), Cases: len(list)}
		for _, v := range list {
			if v.Passing() {
				g.Passed++
			}
		}
		a.Groups = append(a.Groups, g)
	}
	if e.Score != nil {
		a.Possible = e.Score.Possible
		if e.Score.Known {
			a.Points = &e.Score.Points
		}
	}
}

// Attempts returns those that have ended and were run, in their order. Where a source answers only a
// part of the problem, the last of them solves it if all parts are answered together.
func (r *Recorder) Attempts() (list []Attempt) {
	together := map[int]bool{}
	solved := false
	for _, i := range r.order {
		a := r.begun[i]
		if !a.ended || a.Verdict == verdict.Fault || a.Verdict == verdict.Skipped {
			continue
		}
		a.Solves = r.solvedBy(a.passed) && a.Verdict == verdict.Accepted
		solved = solved || a.Solves
		for index, passed := range a.passed {
			together[index] = together[index] || passed
		}
		list = append(list, a.Attempt)
	}
	if n := len(list); n > 0 && !solved && r.solvedBy(together) && list[n-1].Verdict == verdict.Accepted {
		list[n-1].Solves = true
	}
	return list
}

// solvedBy reports that cases are all that the problem has, and that its own limits counted.
func (r *Recorder) solvedBy(passed map[int]bool) bool {
	for i := range r.problem.Cases {
		if !passed[i] {
			return false
		}
	}
	return !r.options.Eased && len(r.problem.Cases) > 0
}

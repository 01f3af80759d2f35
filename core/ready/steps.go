package ready

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"os"
	"slices"
	"strings"
	"time"

	"coldverdict/core/cross"
	"coldverdict/core/edges"
	"coldverdict/core/growth"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// sampleGroup is the group of the cases that a statement shows.
const sampleGroup = "samples"

// mostEdges is how many edge cases are generated at the most.
const mostEdges = 100

// smallInput bounds what the slow builds are run on, in bytes.
const smallInput = 64 << 10

// prepared builds a solution for a problem.
func (l *look) prepared(ctx context.Context, p *problem.Problem, o judge.BuildOptions, s problem.Solution) (*judge.Prepared, error) {
	prepared, closing, err := judge.OpenPrepared(ctx, p, l.options.Env, []problem.Solution{s}, o, func(e judge.Event) { l.tell(e) })
	if err != nil {
		return nil, err
	}
	l.closing = append(l.closing, closing)
	return prepared, nil
}

// candidate is the candidate as it is usually built, for the problem as it is now.
func (l *look) candidate(ctx context.Context) (prepared *judge.Prepared, err error) {
	if l.usual == nil {
		l.usual, err = l.prepared(ctx, l.problem, l.options.Build, l.options.Candidate)
	}
	return l.usual, err
}

// build builds the candidate, in the version of its language that the judge has.
func (l *look) build(ctx context.Context, _ time.Duration) (c Check, err error) {
	unable, err := l.buildOnce(ctx)
	as := ""
	if err == nil && unable == nil {
		if standard := l.plan.Build.Language.StandardIn(l.problem.Judge.Versions); standard != "" && standard != l.plan.Build.Standard {
			l.options.Candidate.Language, l.usual = standard, nil
			unable, err = l.buildOnce(ctx)
			as = " as " + l.plan.Build.Title() + ", which the judge has"
		}
	}
	switch {
	case err != nil:
		return c, err
	case unable != nil && unable.End.Verdict != verdict.CompileError:
		return c, errors.New(unable.End.Message)
	case unable != nil:
		l.result.Log = unable.Log
		return Check{State: Failed, Message: "it does not build" + as + ": " + unable.End.Message}, nil
	}
	if unset := l.plan.Unset; unset.Time > 0 || unset.Memory > 0 {
		what := "the memory limit"
		switch {
		case unset.Time > 0 && unset.Memory > 0:
			what = "a limit for time or memory"
		case unset.Time > 0:
			what = "the time limit"
		}
		l.unchecked("Nobody set "+what, "write the statement's limits below [limits] in verdict.toml")
	}
	l.buildChecked(ctx)
	c.Message = l.plan.Build.Title()
	if c.Findings = warnings(l.plan.Build.Log); len(c.Findings) > 0 {
		c.State, c.Message = Doubtful, "the compiler warns"
	}
	return c, nil
}

// buildChecked begins with the checked build, which takes long, beside the checks before it.
func (l *look) buildChecked(ctx context.Context) {
	l.checked = make(chan struct{})
	ctx, stop := context.WithCancel(ctx)
	l.closing = append(l.closing, func() error { stop(); <-l.checked; return nil })
	o, p, candidate := l.options.Build, l.problem, l.options.Candidate
	o.Checked = true
	go func() {
		defer close(l.checked)
		if !l.plan.Build.Language.HasChecked() {
			return
		}
		// What is wrong with it shows when the build, which is kept, is asked for.
		if _, closing, err := judge.OpenPrepared(ctx, p, l.options.Env, []problem.Solution{candidate}, o, func(judge.Event) {}); err == nil {
			closing()
		}
	}()
}

func (l *look) buildOnce(ctx context.Context) (*judge.UnableError, error) {
	prepared, err := l.candidate(ctx)
	if err != nil {
		return nil, err
	}
	l.plan = prepared.Plan(0)
	return prepared.Unable(0), nil
}

// A span is some cases and the time for them.
type span struct {
	of     *problem.Problem // nil: the one that is looked at
	cases  []int
	budget time.Duration
	counts func(verdict.Verdict) bool // which failures count; nil: all
	run    judge.RunOptions
	heard  func(problem.Case, []byte) // gets what was answered, or its beginning; nil: nobody does
	// asTheyAre says that they run in their order; otherwise the small ones run first.
	asTheyAre bool
}

// run runs the candidate on some cases until one fails or the time is over.
// judged is how many got a verdict. Where the time was over, the check says so.
func (l *look) run(ctx context.Context, prepared *judge.Prepared, s span) (c Check, judged int, err error) {
	limited, end := context.WithTimeout(ctx, s.budget)
	defer end()
	s.of = cmp.Or(s.of, l.problem)
	s.run.Only = s.cases
	if !s.asTheyAre {
		s.run.First = slices.Clone(s.cases)
		slices.SortStableFunc(s.run.First, func(a, b int) int { return cmp.Compare(s.of.Cases[a].Input.Size, s.of.Cases[b].Input.Size) })
	}
	run := 0
	var fault error
	ended, err := prepared.Run(limited, s.of.Cases, s.run, func(e judge.Event) {
		one, ok := e.(judge.Case)
		if done, is := e.(judge.Running); is {
			run = done.Finished
			l.going("%d of %d cases", done.Finished, done.Total)
		}
		if !ok || c.State == Failed {
			return
		}
		test := s.of.Cases[one.Index]
		failed := func(message string) {
			c = Check{State: Failed, Message: test.Name + ": " + message}
			l.failedOn(test, one.Outcome)
			end() // no further case is needed
		}
		if o := one.Outcome; s.heard != nil && o.Verdict.Passing() {
			answer := o.Stdout.Bytes
			if o.Returned != "" {
				answer = []byte(o.Returned)
			}
			s.heard(test, answer)
		}
		switch v := one.Outcome.Verdict; {
		case one.Outcome.Unsteady && s.run.Repeat > 0:
			failed("it does not do the same on every run: " + one.Outcome.Said())
		case v == verdict.Unjudged:
		case v == verdict.Fault:
			fault = errors.New(one.Outcome.Message)
		case !v.Passing() && (s.counts == nil || s.counts(v)):
			failed(one.Outcome.Said())
		default:
			judged++
		}
	})
	if err == nil && ended[0].Verdict == verdict.Fault { // before any case, or in one
		fault = errors.New(cmp.Or(ended[0].Message, fmt.Sprint(fault)))
	}
	switch {
	case c.State == Failed: // whatever else was not looked at any more
		return c, judged, nil
	case limited.Err() != nil && ctx.Err() == nil && fault == nil:
		return Check{State: Unknown, Message: fmt.Sprintf("%d of %d cases in its share of the time", run, len(s.cases))}, judged, nil
	}
	return c, judged, errors.Join(fault, err)
}

// moreTime notes that a check did not come to its end.
func (l *look) moreTime(what string, c Check) {
	l.unchecked(what+": "+c.Message, "give it more time with --seconds")
}

// indices are those of some cases for which a condition holds, and which the candidate runs.
func (l *look) indices(cases []problem.Case, holds func(problem.Case) bool) (list []int) {
	for i, c := range cases {
		if l.options.Candidate.Runs(c.Group) && holds(c) {
			list = append(list, i)
		}
	}
	return list
}

// cases runs the candidate on some of the person's cases.
func (l *look) cases(ctx context.Context, budget time.Duration, list []int) (c Check, err error) {
	prepared, err := l.candidate(ctx)
	if err != nil {
		return c, err
	}
	c, judged, err := l.run(ctx, prepared, span{cases: list, budget: budget, run: judge.RunOptions{KeepAll: true}, heard: l.answered})
	if c.State == Unknown {
		l.moreTime("Not all cases were run", c)
	}
	if err != nil || c.State != Passed {
		return c, err
	}
	c.Message = fmt.Sprintf("%d of %d accepted", judged, len(list))
	if judged < len(list) {
		c.State = Doubtful
		c.Message += "; the others have no expected output"
	}
	if judged == 0 {
		c.State = Unknown
		l.unchecked("No case of this kind has an expected output", "add them to cases.md, or beside NAME.in as NAME.out")
	}
	return c, nil
}

func (l *look) samples(ctx context.Context, budget time.Duration) (Check, error) {
	list := l.indices(l.problem.Cases[:l.own], func(c problem.Case) bool { return c.Group == sampleGroup })
	if len(list) == 0 {
		if l.own == 0 {
			l.unchecked("There is no sample", "take them in with 'cold case add', or put 1.in beside 1.out")
			return Check{State: Unknown, Message: "there are none"}, nil
		}
		return Check{State: Irrelevant, Message: "no group of this name"}, nil
	}
	return l.cases(ctx, budget, list)
}

func (l *look) ownCases(ctx context.Context, budget time.Duration) (Check, error) {
	list := l.indices(l.problem.Cases[:l.own], func(c problem.Case) bool { return c.Group != sampleGroup })
	if len(list) == 0 {
		return Check{State: Irrelevant, Message: "there are none"}, nil
	}
	return l.cases(ctx, budget, list)
}

// noInputs is what is said where nothing does.
var noInputs = Check{State: Unknown, Message: "nothing says what inputs look like"}

func (l *look) edgeCases(ctx context.Context, budget time.Duration) (c Check, err error) {
	if !l.problem.Generates() {
		l.unchecked("Only the cases at hand were tried: nothing says what inputs look like", "describe them in input.shape ('cold shape' says how)")
		return noInputs, nil
	}
	until := time.Now().Add(budget)
	limited, end := context.WithDeadline(ctx, until)
	defer end()
	added, err := edges.Add(limited, l.problem, edges.Options{Env: l.options.Env, Most: mostEdges, Answers: budget / 3}, func(words string) { l.going("%s", words) })
	if err != nil && limited.Err() != nil && ctx.Err() == nil {
		c = Check{State: Unknown, Message: "they could not all be generated and answered in its share of the time"}
		l.moreTime("No edge case was run", c)
		return c, nil
	}
	if err != nil {
		return c, err
	}
	l.closing = append([]func() error{added.Close}, l.closing...)
	l.problem = added.Problem
	l.options.Candidate.Also, l.usual = added.Group, nil
	prepared, err := l.candidate(ctx)
	if err != nil {
		return c, err
	}
	var list []int
	for i := l.own; i < len(l.problem.Cases); i++ {
		list = append(list, i)
	}
	q := newQuestioner(l.problem.Cases[:l.own])
	heard := func(test problem.Case, answer []byte) {
		q.ask(test, answer)
		l.answered(test, answer)
	}
	c, judged, err := l.run(ctx, prepared, span{cases: list, budget: max(time.Until(until), time.Second), run: judge.RunOptions{KeepAll: true}, heard: heard})
	switch {
	case err != nil:
	case c.State == Unknown:
		l.moreTime("Not all edge cases were run", c)
	case c.State == Passed:
		c.Message = fmt.Sprintf("%d run, %d of them judged", len(list), judged)
		if c.Findings = q.list; len(c.Findings) > 0 {
			c.State = Doubtful
		}
	}
	return c, err
}

// answered keeps what the candidate answered in a small case whose answer nobody knows.
func (l *look) answered(c problem.Case, answer []byte) {
	if len(c.Accepted) == 0 && c.Input.Size <= smallInput && len(answer) < judge.KeptText {
		l.answers[c.Name] = bytes.Clone(answer)
	}
}

// small are the cases of a problem that slow builds are run on.
func (l *look) small(p *problem.Problem) []int {
	return l.indices(p.Cases, func(c problem.Case) bool { return c.Input.Size <= smallInput })
}

// aboutLimits reports a verdict that says nothing of a build that is slower and larger than usual.
func aboutLimits(v verdict.Verdict) bool {
	return v == verdict.TimeLimit || v == verdict.MemoryLimit || v == verdict.Stalled || v == verdict.OutputLimit
}

// neverSet is what an answer says that only the checked build gives.
const neverSet = "it depends on memory that was never set, on chance, or on what else the language leaves open"

// otherwise looks at a case to which the checked build gives another answer than the usual one: whether
// that gives the same each time, and then how the two differ.
func (l *look) otherwise(ctx context.Context, checked *judge.Prepared, index int) (c Check, err error) {
	usual, err := l.candidate(ctx)
	if err != nil {
		return c, err
	}
	told := *l.problem
	told.Cases = slices.Clone(told.Cases)
	answer := l.answers[told.Cases[index].Name]
	told.Cases[index].Accepted = []problem.Data{{Text: answer, Size: int64(len(answer))}}
	for range repeats {
		c, _, err = l.run(ctx, usual, span{of: &told, cases: []int{index}, budget: time.Minute})
		if c.State == Failed {
			c.Message += ", which is what it answered before: it does not do the same on every run"
		}
		if err != nil || c.State == Failed {
			return c, err
		}
	}
	for range repeats {
		c, _, err = l.run(ctx, checked, span{of: &told, cases: []int{index}, budget: time.Minute})
		if err != nil {
			return c, err
		}
		if c.State != Failed { // this time it does not
			return Check{State: Failed, Message: told.Cases[index].Name + ": it answers otherwise now and then: it does not do the same on every run"}, nil
		}
	}
	c.Message += ", which is what it answers in the usual build; " + neverSet
	return c, err
}

func (l *look) checkedBuild(ctx context.Context, budget time.Duration) (c Check, err error) {
	language := l.plan.Build.Language
	if !language.HasChecked() {
		return Check{State: Irrelevant, Message: language.Title + " checks these things at every run, or has no such build"}, nil
	}
	l.going("building")
	until := time.Now().Add(budget)
	select {
	case <-l.checked:
	case <-time.After(budget):
		c = Check{State: Unknown, Message: "it was not built in its share of the time"}
		l.moreTime("The build that stops at what is undefined was not run", c)
		return c, nil
	case <-ctx.Done():
		return c, ctx.Err()
	}
	o := l.options.Build
	o.Checked = true
	prepared, err := l.prepared(ctx, l.problem, o, l.options.Candidate)
	if err != nil {
		return c, err
	}
	if unable := prepared.Unable(0); unable != nil {
		l.unchecked("The build that stops at what is undefined could not be made: "+unable.End.Message, "'cold host' says what is missing")
		return Check{State: Unknown, Message: unable.End.Message}, nil
	}
	list := l.small(l.problem)
	other := -1 // the case that it answers in another way
	heard := func(test problem.Case, answer []byte) {
		if usual, ok := l.answers[test.Name]; ok && other < 0 && len(answer) < judge.KeptText && judge.JudgesAlone(l.problem) == "" {
			if d, err := judge.CompareAnswers(l.problem, problem.Data{Text: usual, Size: int64(len(usual))}, answer); err == nil && d != nil {
				other = slices.IndexFunc(l.problem.Cases, func(c problem.Case) bool { return c.Name == test.Name })
			}
		}
	}
	c, _, err = l.run(ctx, prepared, span{cases: list, budget: max(time.Until(until), time.Second), counts: func(v verdict.Verdict) bool { return !aboutLimits(v) }, run: judge.RunOptions{KeepAll: true}, heard: heard})
	switch {
	case err != nil:
	case c.State == Failed && l.result.Found != nil && l.result.Found.Outcome.Verdict == verdict.WrongAnswer:
		c.Message += "; " + neverSet
	case c.State != Failed && other >= 0:
		return l.otherwise(ctx, prepared, other)
	case c.State == Failed && l.result.Found != nil && language.Mild(string(l.result.Found.Outcome.Stderr.Bytes)):
		c = Check{State: Doubtful, Message: "it stops at what works everywhere, or may be meant", Findings: []Finding{{Text: c.Message}}}
		l.result.Found, l.result.Case = nil, ""
	case c.State == Unknown:
		l.moreTime("Not all small cases ran in the build that stops at what is undefined", c)
	case c.State == Passed:
		c.Message = verdict.Count(len(list), "case")
	}
	return c, err
}

// attempt finds among own attempts one that passes all cases within a budget; nil: none does.
func (l *look) attempt(ctx context.Context, budget time.Duration) (*problem.Solution, error) {
	limited, end := context.WithTimeout(ctx, budget)
	defer end()
	only := l.indices(l.problem.Cases[:l.own], func(c problem.Case) bool { return len(c.Accepted) > 0 })
	for _, other := range l.options.Others {
		if len(only) == 0 {
			break
		}
		l.going("trying %s", other.File)
		prepared, err := l.prepared(limited, l.problem, l.options.Build, other)
		if err == nil && prepared.Unable(0) != nil {
			continue
		}
		var ended []judge.Ended
		if err == nil {
			ended, err = prepared.Run(limited, l.problem.Cases, judge.RunOptions{Only: only, UntilFailure: true}, func(judge.Event) {})
		}
		switch {
		case err != nil && limited.Err() != nil && ctx.Err() == nil:
			return nil, nil
		case err != nil:
			return nil, err
		}
		if v := ended[0].Verdict; v == verdict.Accepted || v == verdict.TimeLimit {
			other.Role = problem.Reference
			return &other, nil
		}
	}
	return nil, nil
}

// comparison compares the candidate with a reference on generated inputs.
func (l *look) comparison(ctx context.Context, budget time.Duration) (c Check, err error) {
	if !l.problem.Generates() {
		return noInputs, nil
	}
	o := cross.Options{Candidates: []problem.Solution{l.options.Candidate}, Reference: l.options.Reference, Seed: l.options.Seed, Env: l.options.Env, Build: l.options.Build}
	o.Build.MissingIsFault = true
	own := false
	if o.Reference == nil && l.problem.OneAnswer() {
		began := time.Now()
		if o.Reference, err = l.attempt(ctx, budget/3); err != nil {
			return c, err
		}
		own = o.Reference != nil
		budget -= time.Since(began)
	}
	o.Time = budget * 9 / 10
	result, err := cross.Run(ctx, l.problem, o, func(e cross.Event) {
		if p, ok := e.(cross.Progress); ok {
			l.going("%d inputs", p.Inputs)
		}
	})
	var unable *judge.UnableError
	switch {
	case errors.As(err, &unable):
		l.unchecked(fmt.Sprintf("%s could not be run: %s", unable.Solution.File, unable.End.Message), "mend it, or name another reference with --against")
		return Check{State: Unknown, Message: unable.End.Message}, nil
	case err != nil:
		return c, err
	}
	return l.compared(o, result, own), nil
}

// compared says what a search came to. own says that the reference is an attempt of the person's own.
func (l *look) compared(o cross.Options, r *cross.Result, own bool) (c Check) {
	with := "without a reference"
	switch {
	case r.Base == cross.ByReference:
		with = "against " + o.Reference.File
	case r.Base == cross.ByChecker:
		with = "against the checker"
	}
	if len(r.Found) > 0 {
		f := r.Found[0]
		l.result.Found = &f
		c = Check{State: Failed, Message: fmt.Sprintf("%s, after %s %s", f.Outcome.Said(), verdict.Count(f.Inputs, "input"), with)}
		if own && f.Outcome.Verdict == verdict.WrongAnswer {
			c.Message += "; one of the two is wrong"
		}
		return c
	}
	tried := verdict.Count(r.Inputs, "input")
	if r.Exhausted() {
		tried = "all " + verdict.Count(r.Inputs, "valid input")
	}
	c.Message = fmt.Sprintf("%s %s: nothing found", tried, with)
	switch {
	case r.Inputs == 0:
		c.State = Unknown
		l.moreTime("No generated input was tried", c)
	case r.Health.Wrong != "":
		c.State = Unknown
		l.unchecked(fmt.Sprintf("%s cannot serve as a reference: %s", o.Reference.File, r.Health.Wrong), "name another one with --against")
	case r.Weight() == cross.NothingJudged || r.Weight() == cross.OnlyRan:
		c.State = Doubtful
		l.unchecked("Nobody knows whether its answers are right beyond the cases: there is no reference", "write a slow solution that is surely right, and name it with --against")
	case r.Judged < r.Inputs/2:
		l.unchecked(fmt.Sprintf("The reference answered %d of %d inputs", r.Judged, r.Inputs), "give it more time with --seconds, or write a faster one")
	}
	for _, parts := range r.Coverage.Parts {
		if n := len(parts.Missed); n > 0 {
			l.unchecked(fmt.Sprintf("No input reached %s of %s", parts.MissedWords(5), l.options.Candidate.File), "add a case that does, or see whether they are needed")
		}
	}
	return c
}

// growth predicts what the largest input takes.
func (l *look) growth(ctx context.Context, budget time.Duration) (c Check, err error) {
	if !l.problem.Generates() {
		return noInputs, nil
	}
	o := growth.Options{Candidates: []problem.Solution{l.options.Candidate}, Seed: 1, Env: l.options.Env, Build: l.options.Build}
	o.Build.MissingIsFault = true
	o.Time = max(budget*7/10, time.Second)
	r, err := growth.Run(ctx, l.problem, o, func(e judge.Event) {
		if p, ok := e.(growth.Progress); ok {
			l.going("%v", p.Sizes)
		}
	})
	var scale *growth.ScaleError
	switch {
	case errors.Is(err, growth.ErrNothingGrows), errors.As(err, &scale):
		return Check{State: Irrelevant, Message: "nothing grows here"}, nil
	case err != nil:
		return c, err
	}
	c = l.grown(r, r.Growths[0])
	if c.State != Failed {
		l.reading(&c)
	}
	return c, nil
}

// reading notes that the largest input would be read in a slow way.
func (l *look) reading(c *Check) {
	largest := int64(0)
	for _, one := range l.problem.Cases {
		largest = max(largest, one.Input.Size)
	}
	if slow := l.plan.Build.Language.ReadsSlowly(l.text, largest, l.plan.Limits.Time.Seconds()); slow != "" {
		c.Findings = append(c.Findings, Finding{Text: slow})
		c.State = max(c.State, Doubtful)
	}
}

// grown says what a measurement came to.
func (l *look) grown(r *growth.Result, g growth.Growth) (c Check) {
	if p := g.Stop; p != nil && p.Failed != verdict.Fault {
		return Check{State: Failed, Message: fmt.Sprintf("%s at %s", p.Failed, sizesOf(r, p.Sizes))}
	}
	var words []string
	for _, one := range []struct {
		name  string
		trend growth.Trend
	}{{"time", g.Time}, {"memory", g.Memory}, {"output", g.Output}} {
		t := one.trend
		switch {
		case t.Fits == growth.No && t.Largest.Measured > t.Limit:
			return Check{State: Failed, Message: fmt.Sprintf("%s: the largest input does not fit, it takes %.3g times the limit", one.name, t.Largest.Measured/t.Limit)}
		case t.Fits == growth.No:
			c.State = Doubtful
			words = append(words, fmt.Sprintf("%s grows with %s, and the largest input would take %.2g to %.2g times the limit", one.name, t.Law, t.Largest.Low/t.Limit, t.Largest.High/t.Limit))
			l.unchecked("The largest input was not run, and its "+one.name+" is predicted not to fit", "run it: cold cross --slow")
		case t.Fits == growth.Barely:
			c.State = Doubtful
			words = append(words, one.name+" fits barely")
		case t.Fits == growth.Unknown:
			c.State = max(c.State, Doubtful)
			words = append(words, one.name+" cannot be told")
			l.unchecked("The "+one.name+" of the largest input is not known", "measure it for longer: cold grow --seconds 30")
		case one.name == "time" && t.Largest.Measured > 0:
			words = append(words, "the largest input takes "+percent(t.Largest.Measured/t.Limit)+" of the time limit")
		case one.name == "time":
			words = append(words, fmt.Sprintf("the largest input takes %s to %s of the time limit, as predicted", percent(t.Largest.Low/t.Limit), percent(t.Largest.High/t.Limit)))
			l.unchecked("The largest input was not run, only predicted", "run it: cold cross --slow")
		}
	}
	c.Message = strings.Join(words, "; ")
	return c
}

func percent(share float64) string {
	if share > 0 && share < 0.005 {
		return "less than 1 %"
	}
	return fmt.Sprintf("%.0f %%", 100*share)
}

func sizesOf(r *growth.Result, sizes []int64) string {
	var parts []string
	for i, name := range r.Names {
		parts = append(parts, fmt.Sprintf("%s = %d", name, sizes[i]))
	}
	return strings.Join(parts, ", ")
}

// repeats is how often a case is run to see whether it does the same again.
const repeats = 3

// again runs small cases again and again.
func (l *look) again(ctx context.Context, budget time.Duration) (c Check, err error) {
	list := l.small(l.problem)
	if len(list) == 0 {
		return Check{State: Irrelevant, Message: "there is no small case"}, nil
	}
	prepared, err := l.candidate(ctx)
	if err != nil {
		return c, err
	}
	const most = 20
	list = list[:min(len(list), most)]
	c, _, err = l.run(ctx, prepared, span{cases: list, budget: budget, run: judge.RunOptions{Repeat: repeats, KeepAll: true}})
	if err == nil && c.State == Passed {
		c.Message = fmt.Sprintf("%s, %d times each", verdict.Count(len(list), "case"), repeats)
	}
	return c, err
}

// otherOrder runs the cases of a function in the opposite order, since one process calls it many
// times. Programs get many cases in one file while they are compared, where their shape has any.
func (l *look) otherOrder(ctx context.Context, budget time.Duration) (c Check, err error) {
	if !l.problem.Kind().Calls {
		if l.problem.Shape != nil && l.problem.Shape.Packs() > 0 {
			return Check{Message: "many cases went into one file, in both orders, in the comparison"}, nil
		}
		return Check{State: Irrelevant, Message: "a file holds one case"}, nil
	}
	turned := *l.problem
	turned.Cases = slices.Clone(l.problem.Cases)
	slices.Reverse(turned.Cases)
	prepared, err := l.prepared(ctx, &turned, l.options.Build, l.options.Candidate)
	if err != nil {
		return c, err
	}
	list := l.small(&turned)
	c, _, err = l.run(ctx, prepared, span{of: &turned, cases: list, budget: budget, asTheyAre: true})
	if err == nil && c.State == Passed {
		c.Message = verdict.Count(len(list), "call") + " in the opposite order"
	}
	return c, err
}

// source looks at the file itself.
func (l *look) source(context.Context, time.Duration) (c Check, err error) {
	if l.text, err = os.ReadFile(l.problem.Path(l.options.Candidate)); err != nil {
		return c, err
	}
	c.Findings = Read(l.problem, l.plan, l.text)
	for _, note := range l.plan.Build.Notes {
		c.Findings = append(c.Findings, Finding{Text: note})
	}
	if slices.ContainsFunc(c.Findings, func(f Finding) bool { return f.Sure }) {
		c.State, c.Message = Failed, "a judge refuses it"
		return c, nil
	}
	c.Message = "nothing that a judge is known to refuse"
	if len(c.Findings) > 0 {
		c.State, c.Message = Doubtful, "a judge may have something against it"
	}
	return c, nil
}

// Package edges adds edge cases to a problem: inputs that its shape or its generator makes, with
// the answers of its reference, as far as there is one.
package edges

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Group is the group of the edge cases that are generated from a shape; with a number
// behind it where a problem has such a group itself.
const Group = "edges"

// Added is a problem with edge cases beside its own. It must be closed when the
// problem is no longer needed.
type Added struct {
	Problem *problem.Problem // a copy
	Group   string           // of the edge cases
	Made    int              // edge cases
	From    string           // what made them: a file
	// Answers says where the expected outputs come from, and of how many of the edge
	// cases there are none and why.
	Answers string
	scratch *box.Scratch
}

// Close removes the inputs that were generated.
func (e *Added) Close() error { return e.scratch.Remove() }

// Options say how many edge cases there are, and how they are answered.
type Options struct {
	Env     judge.Env
	Most    int           // of those from a shape
	Answers time.Duration // for all answers of the reference; 0: 15 s
}

// Add makes edge cases from a problem's shape; where [make] makes the inputs, it makes some of all
// sizes. Their expected outputs come from the reference, as far as there is one and it is fast enough;
// where the checker or the interactor judges without one, none are needed. progress
// is told what goes on. The error is the context's, a *shape.GenerateError, or says what
// failed on our side.
func Add(ctx context.Context, p *problem.Problem, o Options, progress func(words string)) (e *Added, err error) {
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-edges-")
	if err != nil {
		return nil, fmt.Errorf("cannot make a folder for edge cases: %w", err)
	}
	copied := *p
	e = &Added{Problem: &copied, Group: Group, From: problem.ShapeFile, scratch: scratch}
	defer func() {
		if err != nil {
			err = errors.Join(err, e.Close())
			e = nil
		}
	}()
	for n := 2; slices.Contains(p.Groups(), e.Group); n++ {
		e.Group = fmt.Sprintf("%s-%d", Group, n)
	}
	copied.Cases = slices.Clone(p.Cases)
	copied.Solutions = slices.Clone(p.Solutions)
	for i := range copied.Solutions {
		copied.Solutions[i].Also = e.Group
	}
	if p.Make != (problem.Make{}) {
		err = e.fromMaker(ctx, o.Env, progress)
	} else {
		err = e.fromShape(ctx, o.Most, progress)
	}
	if err != nil {
		return e, err
	}
	return e, e.answer(ctx, o, len(p.Cases), progress)
}

func (e *Added) fromShape(ctx context.Context, most int, progress func(string)) error {
	progress("choosing edge cases …")
	chosen, err := e.Problem.Shape.EdgeCases(ctx, most)
	if err != nil {
		return err
	}
	for i, c := range chosen.Cases {
		if err := ctx.Err(); err != nil {
			return err
		}
		progress(fmt.Sprintf("generating edge cases: %d of %d", i, len(chosen.Cases)))
		in, err := e.Problem.Shape.Make(c.Making)
		if err != nil {
			return err
		}
		if err := e.add(c.Name, in.Append(nil)); err != nil {
			return err
		}
	}
	return nil
}

// Sizes and seeds of what [make] makes.
var (
	makerSizes = []shape.Size{0, shape.Largest / 20, shape.Largest / 5, shape.Largest / 2, shape.Largest}
	makerSeeds = shape.Seed(4)
)

// fromMaker generates inputs of all sizes; a maker knows no choices.
func (e *Added) fromMaker(ctx context.Context, env judge.Env, progress func(string)) (err error) {
	e.From = e.Problem.Make.Script + e.Problem.Make.Program
	progress("generating edge cases with " + e.From + " …")
	m, err := judge.OpenMaker(ctx, e.Problem, env)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, m.Close()) }()
	for _, size := range makerSizes {
		for seed := range makerSeeds {
			text, err := m.Make(ctx, seed, size)
			if err != nil {
				return err
			}
			if err := e.add(fmt.Sprintf("size-%s.seed-%d", size, uint64(seed)), text); err != nil {
				return err
			}
		}
	}
	return nil
}

// add adds one edge case.
func (e *Added) add(name string, text []byte) error {
	path := filepath.Join(e.scratch.Dir, name+".in")
	if err := os.WriteFile(path, text, 0o600); err != nil {
		return err
	}
	e.Made++
	e.Problem.Cases = append(e.Problem.Cases, problem.Case{
		Name: e.Group + "/" + name, Group: e.Group, Input: problem.Data{Path: path, Size: int64(len(text))}, Compare: e.Problem.Compare, Where: e.From,
		Reason: "generated from " + e.From + ": " + strings.ReplaceAll(name, ".", ", "),
	})
	return nil
}

// The bounds of a reference that answers edge cases.
const (
	answerTime = 2 * time.Second  // of one, at the least; else twice the limit
	answersAll = 15 * time.Second // of all, in which it runs on further ones
	tooSlow    = 3                // so many that pass a limit end it
)

// inParts reports that solutions answer different parts of a problem.
func inParts(solutions []problem.Solution) bool {
	return slices.ContainsFunc(solutions, func(s problem.Solution) bool {
		return len(s.Groups) > 0 && len(s.Args) > 0 || slices.ContainsFunc(solutions, func(other problem.Solution) bool {
			return s.Role == problem.Reference && !s.AnswersWith(other)
		})
	})
}

// answer fills in the expected outputs of the edge cases, which begin at an index.
func (e *Added) answer(ctx context.Context, o Options, from int, progress func(string)) error {
	p := e.Problem
	made := len(p.Cases) - from
	held := "are held to the limits only"
	switch who := judge.JudgesAlone(p); {
	case who != "":
		e.Answers = who + " judges them, and needs no expected output"
		return nil
	case inParts(p.Solutions):
		e.Answers = "the problem has several parts, so nobody knows which answer is wanted; they " + held
		e.judgeNothing(from)
		return nil
	}
	at := slices.IndexFunc(p.Solutions, func(s problem.Solution) bool { return s.Role == problem.Reference })
	if at < 0 {
		e.Answers = "there is no reference to answer them; they " + held
		e.judgeNothing(from)
		return nil
	}
	reference := p.Solutions[at]
	known, why, err := e.ask(ctx, o, reference, from, progress)
	if err != nil {
		return err
	}
	e.Answers = reference.File + " answers all of them"
	if known < made {
		e.Answers = fmt.Sprintf("%s answers %d of them; the others %s: %s", reference.File, known, held, why)
		if known == 0 {
			e.Answers = fmt.Sprintf("%s answers none of them, and they %s: %s", reference.File, held, why)
		}
	}
	e.judgeNothing(from)
	return nil
}

// judgeNothing takes the checker away from edge cases without an expected output,
// which it would ask for.
func (e *Added) judgeNothing(from int) {
	for i := from; i < len(e.Problem.Cases); i++ {
		if len(e.Problem.Cases[i].Accepted) == 0 {
			e.Problem.Cases[i].Compare = problem.Comparison{}
		}
	}
}

// ask runs the reference on the edge cases, the smaller ones first, and takes what it
// prints as the expected output. It returns how many it answered, and why not all.
func (e *Added) ask(ctx context.Context, options Options, reference problem.Solution, from int, progress func(string)) (known int, why string, err error) {
	cases := slices.Clone(e.Problem.Cases)
	o := judge.RunOptions{IsolateCalls: true} // a call that passes a limit is told at once
	for i := from; i < len(cases); i++ {
		cases[i].Compare = problem.Comparison{} // nothing is judged
		o.Only = append(o.Only, i)
	}
	tell := func(event judge.Event) {
		switch event := event.(type) {
		case judge.Building:
			progress("building " + reference.File + " …")
		case judge.Running:
			progress(fmt.Sprintf("answering edge cases with %s: %d of %d", reference.File, event.Finished, event.Total))
		case judge.Ended:
			if event.Verdict == verdict.Skipped || event.Verdict == verdict.Fault || event.Verdict == verdict.CompileError {
				why = event.Message
			}
		}
	}
	j, err := judge.Open(e.Problem, options.Env)
	if err != nil {
		return 0, "", err
	}
	defer func() { err = errors.Join(err, j.Close()) }()
	limits, _ := e.Problem.Limits.For(nil)
	prepared, err := j.Prepare(ctx, []problem.Solution{reference}, judge.BuildOptions{Limits: verdict.Limits{Time: max(answerTime, 2*limits.Time)}}, tell)
	if err != nil {
		return 0, "", err
	}
	began, all := time.Now(), cmp.Or(options.Answers, answersAll)
	slow, failed := 0, 0
	for printed, err := range prepared.Output(ctx, 0, cases, o, tell) {
		if err != nil {
			return known, why, err
		}
		switch v := printed.Outcome.Verdict; v {
		case verdict.Unjudged:
			if err := e.keep(printed.Index, printed.Text, reference.File); err != nil {
				return known, err.Error(), nil
			}
			known++
		case verdict.TimeLimit, verdict.Stalled, verdict.MemoryLimit:
			slow++
		default:
			failed++
			why = fmt.Sprintf("it failed on %d of them, the first time with %s", failed, v)
		}
		if slow == tooSlow {
			break
		}
		if time.Since(began) > all {
			why = cmp.Or(why, fmt.Sprintf("all of them together took more than %v", all))
			break
		}
	}
	if why == "" {
		why = "it is too slow for them"
	}
	return known, why, nil
}

// keep puts an expected output beside its input, and notes who printed it.
func (e *Added) keep(index int, text []byte, source string) error {
	c := &e.Problem.Cases[index]
	path := strings.TrimSuffix(c.Input.Path, ".in") + ".out"
	if err := os.WriteFile(path, text, 0o600); err != nil {
		return err
	}
	c.Accepted = []problem.Data{{Path: path, Size: int64(len(text))}}
	c.Reason += "; expected is what " + source + " printed"
	return nil
}

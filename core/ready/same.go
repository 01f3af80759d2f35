package ready

import (
	"context"
	"errors"
	"fmt"
	"time"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// How many inputs are changed, and how many of a shape's counts the largest of them has.
const (
	mostChanged = 120
	changedSize = 30
)

// sameAnswer looks for inputs whose answer changes with a change that must not matter, as the
// [[same]] tables of verdict.toml name them (metamorphic relations; Chen, Cheung and Yiu, 1998).
func (l *look) sameAnswer(ctx context.Context, budget time.Duration) (c Check, err error) {
	p := l.problem
	switch {
	case len(p.Same) == 0:
		return Check{State: Irrelevant, Message: "verdict.toml names no change that must not matter ([[same]])"}, nil
	case !p.OneAnswer():
		return Check{State: Irrelevant, Message: "several answers may be right"}, nil
	}
	limited, end := context.WithTimeout(ctx, budget/2) // the other half is for what was changed
	defer end()
	before, after, err := l.changed(limited)
	if err != nil || len(before) == 0 {
		return c, err
	}
	prepared, err := l.candidate(ctx)
	if err != nil {
		return c, err
	}
	// What it answers before a change is what it must answer after it.
	var cases []problem.Case
	for printed, err := range prepared.Output(limited, 0, before, judge.RunOptions{}, func(judge.Event) {}) {
		switch {
		case err != nil && limited.Err() != nil && ctx.Err() == nil: // those that were answered will do
		case err != nil:
			return c, err
		case printed.Outcome.Verdict.Passing():
			one := after[printed.Index]
			one.Accepted = []problem.Data{{Text: printed.Text, Size: int64(len(printed.Text))}}
			cases = append(cases, one)
		}
	}
	changed := *p
	changed.Cases = cases
	if prepared, err = l.prepared(ctx, &changed, l.options.Build, l.options.Candidate); err != nil {
		return c, err
	}
	list := l.indices(cases, func(problem.Case) bool { return true })
	c, judged, err := l.run(ctx, prepared, span{of: &changed, cases: list, budget: budget / 2})
	switch {
	case err != nil:
	case c.State == Failed:
		c.Message += "; before the change it answered what is shown as expected"
	case judged < len(before):
		c = Check{State: Unknown, Message: fmt.Sprintf("%d of %d inputs in its share of the time", judged, len(before))}
		l.moreTime("Not all changes were tried", c)
	default:
		c.Message = verdict.Count(judged, "input") + ", each in two ways"
	}
	return c, err
}

// changed are generated inputs, and the same ones changed.
func (l *look) changed(ctx context.Context) (before, after []problem.Case, err error) {
	p := l.problem
	of := func(in *shape.Input) problem.Case {
		text := in.Append(nil)
		return problem.Case{Group: l.options.Candidate.Also, Input: problem.Data{Text: text, Size: int64(len(text))}, Compare: p.Compare}
	}
	for i := range mostChanged {
		if err := ctx.Err(); err != nil {
			break
		}
		seed := l.options.Seed + shape.Seed(i)
		in, err := p.Shape.Make(shape.Making{Seed: seed, Size: p.Shape.SizeFor(int64(2 + i*changedSize/mostChanged)), OneCase: true, Alike: true})
		var cannot *shape.GenerateError
		if errors.As(err, &cannot) {
			continue
		}
		if err != nil {
			return nil, nil, err
		}
		change := p.Same[i%len(p.Same)]
		other, ok := in.Permuted(change.Permute, seed)
		if change.Relabel != "" {
			other, ok = in.Relabelled(change.Relabel, seed)
		}
		if !ok {
			continue
		}
		one := of(other)
		one.Name = fmt.Sprintf("changed/%d (%s)", len(after)+1, change)
		before, after = append(before, of(in)), append(after, one)
	}
	return before, after, nil
}

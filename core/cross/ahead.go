package cross

import (
	"bytes"
	"context"
	"errors"

	"golang.org/x/sync/errgroup"

	"coldverdict/core/judge"
	"coldverdict/core/shape"
	"coldverdict/core/verdict"
)

// Where one process answers many calls, shrinking asks about several inputs at once: those that would come next if
// none of them failed. Most of them do not, and to ask about thirty takes no longer than about one.

// The bounds of what is asked at once: inputs, and the size of the input that is shrunk, in bytes, since each round
// goes through all that was tried before.
const (
	mostAhead = 32
	aheadSize = 4 << 10
)

var errAhead = errors.New("enough is asked")

// shrinkAhead shrinks an input as Shape.Shrink does, to the same result. each says of several inputs which fail. What
// they come to must fail alone, too; where it does not, since a call left something behind for others, they are not
// asked about together.
func shrinkAhead(ctx context.Context, s *shape.Shape, in *shape.Input, each func(context.Context, [][]byte) ([]bool, error), fails func(context.Context, []byte) (bool, error)) (small *shape.Input, complete bool, err error) {
	if len(in.Append(nil)) > aheadSize {
		until, enough := context.WithCancel(ctx)
		defer enough()
		small, complete, err = s.Shrink(until, in, func(_ context.Context, text []byte) (bool, error) {
			failed, err := fails(ctx, text)
			if failed && len(text) <= aheadSize {
				enough()
			}
			return failed, err
		})
		if complete || err != nil || ctx.Err() != nil {
			return small, complete, err
		}
		in = small
	}
	small, complete, err = shrinkTogether(ctx, s, in, each)
	if err != nil || ctx.Err() != nil {
		return small, complete, err
	}
	if failed, err := fails(ctx, small.Append(nil)); failed || err != nil {
		return small, complete, err
	}
	return s.Shrink(ctx, in, fails)
}

// shrinkTogether shrinks by asking about the inputs that would come next if none of them failed.
func shrinkTogether(ctx context.Context, s *shape.Shape, in *shape.Input, each func(context.Context, [][]byte) ([]bool, error)) (small *shape.Input, complete bool, err error) {
	known := map[string]bool{}
	for {
		var asked [][]byte
		small, complete, err = s.Shrink(ctx, in, func(_ context.Context, text []byte) (bool, error) {
			if failed, ok := known[string(text)]; ok {
				return failed, nil
			}
			if len(asked) == mostAhead {
				return false, errAhead
			}
			asked = append(asked, bytes.Clone(text))
			return false, nil
		})
		if ctx.Err() != nil || len(asked) == 0 || err != nil && !errors.Is(err, errAhead) {
			return small, complete, err
		}
		failed, err := each(ctx, asked)
		if err != nil {
			return small, false, err
		}
		for i, text := range asked {
			known[string(text)] = failed[i]
		}
	}
}

// canAsk reports that several inputs can be asked about at once.
func (a *accusation) canAsk() bool {
	return a.way == Fails && (aboutAnswers(a.kind.verdict) || a.kind.verdict == verdict.RuntimeError)
}

// failsEach says of several inputs on which the candidate still fails in the same way.
func (a *accusation) failsEach(ctx context.Context, texts [][]byte) ([]bool, error) {
	for range texts {
		a.try()
	}
	if a.base == ByReference && a.kind.verdict == verdict.WrongAnswer && !a.problem.Compare.Custom() {
		return a.partsOfEach(ctx, texts)
	}
	var expected [][]byte
	if a.base == ByReference && aboutAnswers(a.kind.verdict) {
		var err error
		if expected, _, err = a.askEach(ctx, a.worker, texts, false); err != nil {
			return nil, err
		}
	}
	outcomes, err := a.judgeTexts(ctx, a.worker, a.candidate, texts, expected, nil)
	if err != nil {
		return nil, err
	}
	failed := make([]bool, len(texts))
	for i, o := range outcomes {
		failed[i] = kindOf(o) == a.kind
	}
	return failed, nil
}

// partsOfEach says on which of several inputs candidate and reference answer otherwise. They run beside each other.
func (a *accusation) partsOfEach(ctx context.Context, texts [][]byte) ([]bool, error) {
	var expected, got [][]byte
	var unable []trouble
	group, both := errgroup.WithContext(ctx)
	group.Go(func() (err error) {
		expected, _, err = a.askEach(both, a.worker, texts, false)
		return err
	})
	group.Go(func() (err error) {
		got, _, unable, err = a.answersToEach(both, a.worker, a.candidate, texts, verdict.Limits{})
		return err
	})
	if err := group.Wait(); err != nil {
		return nil, err
	}
	failed := make([]bool, len(texts))
	for _, t := range unable { // wrong whatever is expected: a function that returned nothing
		failed[t.at] = expected[t.at] != nil && kindOf(t.outcome) == a.kind
	}
	for i := range texts {
		if expected[i] == nil || got[i] == nil {
			continue
		}
		d, err := judge.CompareAnswers(a.problem, dataOf(expected[i]), got[i])
		if err != nil {
			return nil, err
		}
		failed[i] = d != nil
	}
	return failed, nil
}

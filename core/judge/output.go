package judge

import (
	"bytes"
	"context"
	"io"
	"iter"
	"sync"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// A Printed is what a solution printed for a case, or what its function returned.
type Printed struct {
	Index   int // of the case
	Text    []byte
	Outcome verdict.Outcome
}

// An Agreement says how an answer compares with that of a reference.
type Agreement struct {
	Compared   bool // both ran to their end
	Difference *verdict.Difference
}

// Agreements compares what a candidate printed on an input whose answer nobody knows with what
// references printed, and returns what each of them says, and the verdict that follows: that of
// the candidate's run where it did not end well, unjudged where nothing could be compared. The
// error says that an answer could not be read.
func Agreements(p *problem.Problem, candidate Printed, references []Printed) (list []Agreement, v verdict.Verdict, err error) {
	clean := func(o verdict.Outcome) bool { return o.Ran && o.Verdict == verdict.Unjudged }
	list, v = make([]Agreement, len(references)), candidate.Outcome.Verdict
	if !clean(candidate.Outcome) {
		return list, v, nil
	}
	for i, r := range references {
		if !clean(r.Outcome) {
			continue
		}
		expected := problem.Data{Text: r.Text, Size: int64(len(r.Text))}
		if list[i].Difference, err = CompareAnswers(p, expected, candidate.Text); err != nil {
			return list, v, err
		}
		list[i].Compared = true
		switch {
		case list[i].Difference != nil:
			v = verdict.WrongAnswer
		case v == verdict.Unjudged:
			v = verdict.Accepted
		}
	}
	return list, v, nil
}

// Output runs one solution on cases as Run does, and yields all that it prints for each, in case
// order and as soon as it is there. Who stops the iteration ends the runs. A solution that
// cannot be run yields nothing: the Ended that progress is told says why. The last error is the
// context's, or says what failed on our side.
func (p *Prepared) Output(ctx context.Context, solution int, cases []problem.Case, o RunOptions, progress func(Event)) iter.Seq2[Printed, error] {
	return func(yield func(Printed, error) bool) {
		ctx, cancel := context.WithCancel(ctx)
		defer cancel()
		printed, failed := make(chan Printed), make(chan error, 1)
		go func() {
			defer close(printed)
			failed <- p.outputs(ctx, solution, cases, o, progress, func(one Printed) {
				select {
				case printed <- one:
				case <-ctx.Done():
				}
			})
		}()
		more := true
		for one := range printed {
			if more = more && yield(one, nil); !more {
				cancel()
			}
		}
		if err := <-failed; err != nil && more {
			yield(Printed{}, err)
		}
	}
}

func (p *Prepared) outputs(ctx context.Context, solution int, cases []problem.Case, o RunOptions, progress func(Event), each func(Printed)) error {
	var mu sync.Mutex
	texts := map[int]*bytes.Buffer{} // of cases that are not told yet
	further := o.Output
	o.Output = func(solution, index int) io.Writer {
		text := &bytes.Buffer{}
		mu.Lock()
		texts[index] = text
		mu.Unlock()
		if further == nil {
			return text
		}
		return io.MultiWriter(text, further(solution, index))
	}
	_, err := p.run(ctx, []int{solution}, cases, o, func(e Event) {
		progress(e)
		c, ok := e.(Case)
		if !ok {
			return
		}
		one := Printed{Index: c.Index, Outcome: c.Outcome}
		mu.Lock()
		if text := texts[c.Index]; text != nil {
			one.Text = text.Bytes()
		}
		delete(texts, c.Index)
		mu.Unlock()
		each(one)
	})
	return err
}

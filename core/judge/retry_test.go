package judge

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
)

// What is run again is tried with an executor that runs nothing.

// A fakeExecutor answers each attempt of a case from a list; the last answer stays.
type fakeExecutor struct {
	answers map[int][]verdict.Outcome // by position
	after   map[int]string
	hints   []string
	broken  error // of diagnose
	cut     bool  // the first case is a sequence that was cut off

	mu    sync.Mutex
	calls []string
}

func (f *fakeExecutor) note(format string, args ...any) {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.calls = append(f.calls, fmt.Sprintf(format, args...))
}

func (f *fakeExecutor) attempts(ctx context.Context, _ *worker, positions []int, each func(attempt)) error {
	f.note("run %v", positions)
	for _, position := range positions {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		list := f.answers[position]
		if len(list) > 1 {
			f.answers[position] = list[1:]
		}
		a := attempt{position: position, outcome: list[0], cut: f.cut && position == 0}
		if len(positions) > 1 {
			a.after = f.after[position]
		}
		each(a)
	}
	return nil
}

func (f *fakeExecutor) diagnose(_ context.Context, _ *worker, position int) ([]string, error) {
	f.note("diagnose %d", position)
	return f.hints, f.broken
}

func (f *fakeExecutor) reached(_ context.Context, _ *worker, position int, o *verdict.Outcome) error {
	f.note("reach %d", position)
	o.Message = "call 3"
	return f.broken
}

func (f *fakeExecutor) batches() [][]int { return nil }
func (f *fakeExecutor) beside() int      { return 0 }

// settledBy runs one batch of all cases under limits of a second.
func settledBy(t *testing.T, f *fakeExecutor, o RunOptions, concurrent bool, change func(*solutionRun)) (map[int]verdict.Outcome, error) {
	t.Helper()
	r := &solutionRun{judge: &Judge{}, options: o, plan: &Plan{Limits: verdict.Limits{Time: time.Second, Wall: 2 * time.Second, Memory: 1 << 20}}, looks: &looks{}}
	r.options.Repeat = max(o.Repeat, 1)
	var positions []int
	for i := range f.answers {
		r.cases = append(r.cases, problem.Case{Name: fmt.Sprintf("a/%d", i)})
		r.plan.Cases = append(r.plan.Cases, i)
	}
	for i := range r.cases {
		positions = append(positions, i)
	}
	if change != nil {
		change(r)
	}
	settled := map[int]verdict.Outcome{}
	err := r.batch(t.Context(), f, nil, positions, concurrent, func(i int, o verdict.Outcome) {
		assert.NotContains(t, settled, i, "each case is settled once")
		settled[i] = o
	})
	return settled, err
}

// ran is the outcome of a run that took so much of a second.
func ran(v verdict.Verdict, seconds float64) verdict.Outcome {
	used := time.Duration(seconds * float64(time.Second))
	return verdict.Outcome{Verdict: v, Ran: true, Usage: verdict.Usage{CPU: used, Wall: used, Memory: 1000}}
}

func waited(v verdict.Verdict, wall time.Duration) verdict.Outcome {
	return verdict.Outcome{Verdict: v, Ran: true, Usage: verdict.Usage{Wall: wall}}
}

func TestWhatIsRunAgain(t *testing.T) {
	wrong, fits, slow, deep := ran(verdict.WrongAnswer, 0.1), ran(verdict.Accepted, 0.1), ran(verdict.TimeLimit, 1.1), ran(verdict.MemoryLimit, 0.1)
	explained := deep
	explained.Hints = []string{"known"}
	for _, tt := range []struct {
		name       string
		answers    []verdict.Outcome // of the case in question, one for each run
		after      string            // the case before it in its process
		concurrent bool
		options    RunOptions
		skipRerun  bool
		leaves     bool
		cut        bool // in the middle of a sequence
		hints      []string
		calls      []string // beside the first run
		want       verdict.Verdict
		message    string
		unsteady   bool
	}{
		{name: "a quick case is run once", answers: []verdict.Outcome{fits}, concurrent: true, want: verdict.Accepted},
		{name: "near the time limit beside others", answers: []verdict.Outcome{ran(verdict.Accepted, 0.8), ran(verdict.Accepted, 0.4)}, concurrent: true, calls: []string{"run [0]"}, want: verdict.Accepted},
		{name: "near it with the machine for itself", answers: []verdict.Outcome{ran(verdict.Accepted, 0.8)}, want: verdict.Accepted},
		{name: "past the time limit beside others, not alone", answers: []verdict.Outcome{slow, fits}, concurrent: true, calls: []string{"run [0]"}, want: verdict.Accepted},
		{name: "past it alone, too", answers: []verdict.Outcome{slow, slow}, concurrent: true, calls: []string{"run [0]"}, want: verdict.TimeLimit},
		{name: "near the wall limit beside others", answers: []verdict.Outcome{waited(verdict.Stalled, 2*time.Second), fits}, concurrent: true, calls: []string{"run [0]"}, want: verdict.Accepted},
		{name: "near the time limit, and wrong only beside others", answers: []verdict.Outcome{ran(verdict.WrongAnswer, 0.8), fits}, concurrent: true, calls: []string{"run [0]"}, want: verdict.WrongAnswer, unsteady: true},
		{name: "a call that fails only after others", answers: []verdict.Outcome{wrong, fits}, after: "a/9", calls: []string{"run [0]"}, want: verdict.WrongAnswer, message: "right on its own, wrong after a/9: something is left over from an earlier call"},
		{name: "a call that fails on its own, too", answers: []verdict.Outcome{wrong, wrong}, after: "a/9", calls: []string{"run [0]"}, want: verdict.WrongAnswer},
		{name: "a call that fails worse on its own", answers: []verdict.Outcome{wrong, ran(verdict.RuntimeError, 0.1)}, after: "a/9", calls: []string{"run [0]"}, want: verdict.RuntimeError, unsteady: true},
		{name: "a call that fails after others, not to be run again", answers: []verdict.Outcome{wrong, fits}, after: "a/9", skipRerun: true, want: verdict.WrongAnswer},
		{name: "the first call of a process", answers: []verdict.Outcome{wrong}, want: verdict.WrongAnswer},
		{name: "a fault is not run again", answers: []verdict.Outcome{{Verdict: verdict.Fault, Ran: true}}, after: "a/9", want: verdict.Fault},
		{name: "past the memory limit", answers: []verdict.Outcome{deep}, hints: []string{"stack overflow"}, calls: []string{"diagnose 0"}, want: verdict.MemoryLimit, message: deepRecursion},
		{name: "past it, and nothing is learned", answers: []verdict.Outcome{deep}, calls: []string{"diagnose 0"}, want: verdict.MemoryLimit},
		{name: "past it, and it is known why", answers: []verdict.Outcome{explained}, want: verdict.MemoryLimit},
		{name: "a call past it after others", answers: []verdict.Outcome{deep, deep}, after: "a/9", calls: []string{"run [0]", "diagnose 0"}, want: verdict.MemoryLimit},
		{name: "a call past it after others that left something", answers: []verdict.Outcome{deep, fits}, after: "a/9", leaves: true, calls: []string{"run [0]"}, want: verdict.Accepted},
		{name: "the same, where others look again", answers: []verdict.Outcome{deep, fits}, after: "a/9", leaves: true, skipRerun: true, calls: []string{"run [0]"}, want: verdict.Accepted},
		{name: "the same, and past it on its own, too", answers: []verdict.Outcome{deep, deep}, after: "a/9", leaves: true, calls: []string{"run [0]", "diagnose 0"}, want: verdict.MemoryLimit},
		{name: "wrong after others that left something", answers: []verdict.Outcome{wrong, fits}, after: "a/9", leaves: true, calls: []string{"run [0]"}, want: verdict.WrongAnswer, message: "right on its own, wrong after a/9"},
		{name: "a sequence that is cut off", answers: []verdict.Outcome{slow}, cut: true, calls: []string{"reach 0"}, want: verdict.TimeLimit, message: "call 3"},
		{name: "a sequence that is cut off after others", answers: []verdict.Outcome{slow, slow}, after: "a/9", cut: true, calls: []string{"run [0]", "reach 0"}, want: verdict.TimeLimit, message: "call 3"},
		{name: "a sequence that passes its memory limit", answers: []verdict.Outcome{deep}, cut: true, calls: []string{"diagnose 0", "reach 0"}, want: verdict.MemoryLimit, message: "call 3"},
		{name: "a sequence that is cut off, where others look again", answers: []verdict.Outcome{slow}, cut: true, skipRerun: true, want: verdict.TimeLimit},
		{name: "three times, alike", answers: []verdict.Outcome{fits}, options: RunOptions{Repeat: 3}, calls: []string{"pass", "pass"}, want: verdict.Accepted},
		{name: "three times, once wrong", answers: []verdict.Outcome{fits, wrong, fits}, options: RunOptions{Repeat: 3}, calls: []string{"pass", "pass"}, want: verdict.WrongAnswer, unsteady: true},
		{name: "three times, once not at all", answers: []verdict.Outcome{fits, {Verdict: verdict.Fault, Message: "gone"}, fits}, options: RunOptions{Repeat: 3}, calls: []string{"pass", "pass"}, want: verdict.Fault, message: "gone"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			f := &fakeExecutor{answers: map[int][]verdict.Outcome{0: tt.answers, 1: {fits}}, after: map[int]string{0: tt.after}, hints: tt.hints, cut: tt.cut}
			settled, err := settledBy(t, f, tt.options, tt.concurrent, func(r *solutionRun) { r.skipRerun, r.plan.leaves = tt.skipRerun, tt.leaves })
			require.NoError(t, err)
			require.Len(t, settled, 2)
			o := settled[0]
			assert.Equal(t, tt.want.String(), o.Verdict.String())
			assert.Contains(t, o.Message, tt.message)
			assert.Equal(t, tt.unsteady, o.Unsteady)
			want := []string{"run [0 1]"}
			for _, call := range tt.calls {
				if call == "pass" {
					call = "run [0 1]"
				}
				want = append(want, call)
			}
			assert.Equal(t, want, f.calls)
		})
	}
}

func TestTheTimesThatCountAreThoseOfTheRunWithoutCompany(t *testing.T) {
	f := &fakeExecutor{answers: map[int][]verdict.Outcome{0: {ran(verdict.Accepted, 0.95), ran(verdict.Accepted, 0.3)}}}
	settled, err := settledBy(t, f, RunOptions{}, true, nil)
	require.NoError(t, err)
	assert.Equal(t, 300*time.Millisecond, settled[0].Usage.CPU)
	assert.Nil(t, settled[0].Spread)

	f = &fakeExecutor{answers: map[int][]verdict.Outcome{0: {ran(verdict.Accepted, 0.3), ran(verdict.Accepted, 0.1), ran(verdict.Accepted, 0.2)}}}
	settled, err = settledBy(t, f, RunOptions{Repeat: 3}, false, nil)
	require.NoError(t, err)
	assert.Equal(t, &verdict.Spread{Runs: 3, Least: 100 * time.Millisecond, Median: 200 * time.Millisecond, Most: 300 * time.Millisecond}, settled[0].Spread)
	assert.Equal(t, 200*time.Millisecond, settled[0].Usage.CPU)
}

func TestOfManyCallsThatFailAfterOthersAFewAreRunAgain(t *testing.T) {
	for v, most := range map[verdict.Verdict]int{verdict.WrongAnswer: mostRerunWrong, verdict.TimeLimit: mostRerunLimits} {
		f := &fakeExecutor{answers: map[int][]verdict.Outcome{}, after: map[int]string{}}
		for i := range 50 {
			f.answers[i], f.after[i] = []verdict.Outcome{ran(v, 0.1)}, "a/before"
		}
		settled, err := settledBy(t, f, RunOptions{}, false, nil)
		require.NoError(t, err)
		assert.Len(t, settled, 50)
		assert.Len(t, f.calls, 1+most, v.String())
	}
}

func TestAnErrorEndsABatch(t *testing.T) {
	gone := errors.New("gone")
	f := &fakeExecutor{answers: map[int][]verdict.Outcome{0: {ran(verdict.MemoryLimit, 0.1)}}, broken: gone}
	_, err := settledBy(t, f, RunOptions{}, false, nil)
	assert.ErrorIs(t, err, gone)
}
